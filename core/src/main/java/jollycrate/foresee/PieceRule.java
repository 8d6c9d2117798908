package jollycrate.foresee;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import jollycrate.host.Facts;
import jollycrate.server.Keys;
import jollycrate.server.Piece;
import jollycrate.server.Server;
import jollycrate.server.Stock;

/** What others left is not in the way, and every value can be kept. */
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
    for (Piece piece : scene.wanted().pieces()) {
      foreign(scene.stock(), piece, findings);
    }
    return findings;
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
