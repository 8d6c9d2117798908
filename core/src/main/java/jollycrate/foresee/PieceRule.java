package jollycrate.foresee;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import jollycrate.file.Digests;
import jollycrate.host.Facts;
import jollycrate.server.Keys;
import jollycrate.server.Piece;
import jollycrate.server.Server;
import jollycrate.server.Splicer;
import jollycrate.server.Standing;
import jollycrate.server.Stock;

/** What we left is as we left it, what others left is not in the way, every value can be kept. */
final class PieceRule implements Rule {
  @Override
  public List<Finding> look(Scene scene) {
    List<Finding> findings = new ArrayList<>();
    scene
        .wanted()
        .refused()
        .forEach(
            value ->
                findings.add(Finding.blocker(value.subject(), value.message(), "", value.fix())));
    scene
        .owner()
        .ifPresent(owner -> findings.addAll(changed(scene.stock(), owner, scene.splicers())));
    for (Piece piece : scene.wanted().pieces()) {
      foreign(scene.stock(), piece, findings);
    }
    return findings;
  }

  /** Pieces of an application that are not as we left them. */
  static List<Finding> changed(
      Stock stock, Standing.Owner owner, Function<Path, Optional<Splicer>> splicers) {
    List<Finding> findings = new ArrayList<>();
    for (Map.Entry<String, Standing.Held> held : owner.pieces().entrySet()) {
      Path path = Keys.path(stock.server(), held.getKey());
      String digest = held.getValue().digest();
      if (digest.equals(Standing.FOLDER)) {
        continue;
      }
      if (Keys.isFragment(held.getKey())) {
        String name = Keys.fragmentName(held.getKey());
        splicers
            .apply(path)
            .flatMap(splicer -> splicer.find(stock.text(path).orElse(""), name))
            .filter(text -> !digest.equals(Digests.of(text.getBytes(StandardCharsets.UTF_8))))
            .ifPresent(text -> findings.add(changedInside(stock, owner, path, name, text)));
        continue;
      }
      Facts facts = stock.at(path);
      if (facts.exists() && !digest.equals(stock.digests().get(path))) {
        findings.add(
            Finding.blocker(
                stock.server().shown(path),
                "this file of ours was changed by somebody since delivery " + owner.delivery(),
                "changed at " + facts.modified(),
                "Put back what stood there, or delete the file, and deliver again"));
      }
    }
    return findings;
  }

  private static Finding changedInside(
      Stock stock, Standing.Owner owner, Path path, String name, String text) {
    return Finding.blocker(
        stock.server().shown(path),
        "what we put there for '"
            + name
            + "' was changed by somebody since delivery "
            + owner.delivery(),
        text,
        "Put back what stood there, or take it out, and deliver again");
  }

  private static void foreign(Stock stock, Piece piece, List<Finding> findings) {
    Server server = stock.server();
    Facts facts = stock.at(piece.path());
    boolean known = !stock.standing().ownersOf(Keys.of(server, piece)).isEmpty();
    boolean folder = piece instanceof Piece.Folder;
    boolean inTheWay =
        folder ? facts.exists() && !facts.isFolder() : facts.exists() && !facts.isFile();
    if (inTheWay || piece instanceof Piece.WholeFile && facts.exists() && !known) {
      findings.add(
          Finding.blocker(
              server.shown(piece.path()),
              "something that Jolly Crate did not put there is in the way",
              "a " + facts.type().name().toLowerCase(Locale.ROOT),
              "Move it away if nobody needs it"));
    }
  }
}
