package jollycrate.delivery;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Application;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ArtifactReader;
import jollycrate.boot.BootUnit;
import jollycrate.file.Trees;
import jollycrate.foresee.ChangedThere;
import jollycrate.journal.EarlierRelease;
import jollycrate.secret.SecretException;
import jollycrate.server.Keys;
import jollycrate.server.Order;
import jollycrate.server.Piece;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;
import jollycrate.watch.Site;

/** What is to stand on a server, beside what somebody made of what we left there. */
record Preparation(Site site) {

  /** The pieces that an order needs; what is secret in them is hidden from now on. */
  Wanted wanted(Stock stock, Order order) {
    Wanted wanted =
        site.kind()
            .wanted(stock, order)
            .after(BootUnit.pieces(stock, site.kind().processes().launch(stock)));
    wanted.hidden().forEach(site.secrets()::hide);
    return wanted;
  }

  /** What somebody changed in pieces of an application; empty when nobody did. */
  Optional<KeepOrReplace> changes(Stock stock, String application, ChangedThere.Choice choice) {
    Optional<Standing.Owner> owner = stock.standing().owner(application);
    List<ChangedThere> changed =
        owner.map(known -> ChangedThere.of(stock, known, site.kind()::splicer)).orElse(List.of());
    return changed.isEmpty()
        ? Optional.empty()
        : Optional.of(
            new KeepOrReplace(
                site.server(),
                owner.get().delivery(),
                changed,
                left(stock, owner.get(), changed),
                choice));
  }

  /** The text of changed pieces as we left it: what the same delivery would put there again. */
  private Map<String, String> left(Stock stock, Standing.Owner owner, List<ChangedThere> changed) {
    Path folder = Trees.temporary();
    try {
      Optional<EarlierRelease> release = site.releases().of(owner.delivery());
      if (release.isEmpty()) {
        return Map.of();
      }
      Wanted again = wanted(stock, orderOf(release.get(), folder, DescribedHere.NOTHING));
      Map<String, String> texts = new HashMap<>();
      for (Piece piece : again.pieces()) {
        String key = Keys.of(site.server(), piece);
        boolean same =
            changed.stream()
                .anyMatch(it -> it.key().equals(key) && it.left().equals(piece.digest()));
        KeepOrReplace.text(piece).filter(text -> same).ifPresent(text -> texts.put(key, text));
      }
      return texts;
    } catch (NotDeliveredException | SecretException cannotBeMadeAgain) {
      return Map.of();
    } finally {
      Trees.discard(folder);
    }
  }

  /**
   * The order to deliver a release again.
   *
   * @param folder beside the tool that its files are brought to
   * @param here what is described where the tool works
   */
  Order orderOf(EarlierRelease release, Path folder, DescribedHere here) {
    Application described = new Rollback(site).broughtBack(release, folder, here);
    Artifact artifact = ArtifactReader.read(described.making().artifact().orElseThrow());
    return new Passwords(described, site.secrets()).order(artifact, release.onAdminPort());
  }
}
