package jollycrate.foresee;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import jollycrate.host.Facts;
import jollycrate.server.Keys;
import jollycrate.server.Order;
import jollycrate.server.Piece;
import jollycrate.server.Server;
import jollycrate.server.Standing;
import jollycrate.server.Stock;

/** What others left is not in the way, and every value can be kept. */
final class PieceRule implements Rule {
  @Override
  public List<Finding> look(Scene scene) {
    List<Finding> findings = new ArrayList<>();
    scene.wanted().refused().stream()
        .filter(value -> !restsOnAFault(scene.order(), value.subject()))
        .forEach(
            value ->
                findings.add(Finding.blocker(value.subject(), value.message(), "", value.fix())));
    scene
        .wanted()
        .doubts()
        .forEach(
            value -> findings.add(Finding.warn(value.subject(), value.message(), "", value.fix())));
    for (Piece piece : scene.wanted().pieces()) {
      foreign(scene.stock(), piece, findings);
      foreignFragment(scene, piece).ifPresent(findings::add);
      shared(scene, piece).ifPresent(findings::add);
    }
    return findings;
  }

  /** What a broken web.xml declares is not known, so nothing is said of names that it may hold. */
  private static boolean restsOnAFault(Order order, String subject) {
    return !order.artifact().faults().isEmpty()
        && (order.application().dataSources().stream()
                .anyMatch(source -> source.jndiName().equals(subject))
            || order.application().context().entries().stream()
                .anyMatch(entry -> entry.name().equals(subject)));
  }

  /** One key has one content, whoever needs it. */
  private static Optional<Finding> shared(Scene scene, Piece piece) {
    Server server = scene.stock().server();
    String key = Keys.of(server, piece);
    String others =
        scene.stock().standing().applications().stream()
            .filter(owner -> !owner.name().equals(scene.order().application().name()))
            .filter(owner -> owner.pieces().containsKey(key))
            .filter(owner -> !owner.pieces().get(key).digest().equals(piece.digest()))
            .map(Standing.Owner::name)
            .collect(Collectors.joining(", "));
    return others.isEmpty()
        ? Optional.empty()
        : Optional.of(
            Finding.blocker(
                server.shown(piece.path()),
                "it is shared with " + others + ", which needs it as it stands there",
                "",
                "Describe the same for both, or undeploy " + others + " first"));
  }

  /** What people put under the same key would be written over now, and taken away later. */
  private static Optional<Finding> foreignFragment(Scene scene, Piece piece) {
    Server server = scene.stock().server();
    if (!(piece instanceof Piece.Fragment fragment)
        || !scene.stock().standing().ownersOf(Keys.of(server, piece)).isEmpty()) {
      return Optional.empty();
    }
    return scene
        .stock()
        .text(fragment.path())
        .flatMap(
            text ->
                scene
                    .splicers()
                    .apply(fragment.path())
                    .flatMap(splicer -> splicer.find(text, fragment.name())))
        .map(
            there ->
                Finding.blocker(
                    server.shown(fragment.path()),
                    "somebody else put '" + fragment.name() + "' there, and needs it",
                    "",
                    "Choose another name, or take it out there first. A user whom the server knows"
                        + " already is written \"existing\" in [users]"));
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
