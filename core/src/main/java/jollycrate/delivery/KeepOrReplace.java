package jollycrate.delivery;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.foresee.ChangedThere;
import jollycrate.foresee.Finding;
import jollycrate.host.Content;
import jollycrate.server.Keys;
import jollycrate.server.Part;
import jollycrate.server.Piece;
import jollycrate.server.Server;
import jollycrate.server.Wanted;

/**
 * Settles what becomes of pieces of ours that somebody changed on the server: never silently one or
 * the other.
 *
 * @param delivery number of the one that left them
 * @param changed those pieces
 * @param left text of each as that delivery left it, by key; those that can be made again
 */
record KeepOrReplace(
    Server server,
    int delivery,
    List<ChangedThere> changed,
    Map<String, String> left,
    ChangedThere.Choice choice) {

  /**
   * What it comes to.
   *
   * @param wanted with what is kept
   * @param ours digests of what we would have put there, by key, of pieces in which something is
   *     kept: they stay changed by somebody
   */
  record Settled(Wanted wanted, Map<String, String> ours, List<Finding> findings) {}

  /** Of a delivery that wants those pieces. */
  Settled settled(Wanted wanted) {
    Map<String, Piece> kept = new HashMap<>();
    Map<String, String> ours = new HashMap<>();
    List<Finding> findings = new ArrayList<>();
    for (ChangedThere change : changed) {
      Optional<Piece> piece = counterpart(change, wanted);
      Keeping keeping = keeping(change, piece);
      findings.add(finding(change, keeping, piece));
      if (choice == ChangedThere.Choice.KEEP && keeping.hindrance.isEmpty()) {
        String key = Keys.of(server, piece.orElseThrow());
        kept.put(key, with(piece.get(), keeping.text));
        ours.put(key, piece.get().digest());
      }
    }
    List<Piece> pieces =
        wanted.pieces().stream()
            .map(piece -> kept.getOrDefault(Keys.of(server, piece), piece))
            .toList();
    return new Settled(wanted.of(pieces), Map.copyOf(ours), findings);
  }

  /** Of a removal, which wants none of them. */
  List<Finding> removing() {
    return changed.stream()
        .map(
            change ->
                switch (choice) {
                  case ASK ->
                      asking(
                          change, Optional.empty(), "Take it away with '--changed-there replace'");
                  case KEEP ->
                      asking(
                          change, Optional.empty(), "It goes with its application: use 'replace'");
                  case REPLACE -> lost(change, Optional.empty());
                })
        .toList();
  }

  /**
   * Whether and how it can stay.
   *
   * @param text with what was changed there and with what is new
   * @param hindrance why it cannot; empty when it can
   */
  private record Keeping(String text, String hindrance) {
    static Keeping hindered(String why) {
      return new Keeping("", why);
    }
  }

  private Keeping keeping(ChangedThere change, Optional<Piece> piece) {
    if (piece.isEmpty()) {
      return Keeping.hindered("this delivery wants no such file any more");
    }
    Optional<String> wanted = text(piece.get());
    if (change.text().isEmpty() || wanted.isEmpty()) {
      return Keeping.hindered("it is no text");
    }
    if (!left.containsKey(change.key())) {
      return Keeping.hindered(
          "what delivery "
              + delivery
              + " left there cannot be made again: the server or a secret changed since, or its"
              + " release is not kept");
    }
    String before = left.get(change.key());
    TextMerge.Merged merged =
        piece.get().part() == Part.SWITCH
            ? TextMerge.byWords(before, change.text().get(), wanted.get())
            : TextMerge.byLines(before, change.text().get(), wanted.get());
    return merged.clashes().isEmpty()
        ? new Keeping(merged.text(), "")
        : Keeping.hindered(
            "this delivery changes the same place: " + String.join(", ", merged.clashes()));
  }

  private Finding finding(ChangedThere change, Keeping keeping, Optional<Piece> piece) {
    boolean can = keeping.hindrance.isEmpty();
    return switch (choice) {
      case REPLACE -> lost(change, piece);
      case KEEP ->
          can
              ? new Finding(
                  Finding.Level.NOTE,
                  change.subject(),
                  "what was changed there since delivery " + delivery + " stays",
                  difference(change, piece),
                  "")
              : Finding.blocker(
                  change.subject(),
                  "what was changed there since delivery "
                      + delivery
                      + " cannot stay: "
                      + keeping.hindrance,
                  difference(change, piece),
                  "Write it into jolly.toml where it goes there, and deliver with"
                      + " '--changed-there replace'");
      case ASK ->
          asking(
              change,
              piece,
              (can
                      ? "Deliver with '--changed-there keep', and it stays beside what is new;"
                      : "It cannot be kept (" + keeping.hindrance + ");")
                  + " with '--changed-there replace' it is lost");
    };
  }

  private Finding asking(ChangedThere change, Optional<Piece> piece, String fix) {
    return Finding.blocker(
        change.subject(),
        "was changed there since delivery " + delivery,
        difference(change, piece),
        fix);
  }

  private Finding lost(ChangedThere change, Optional<Piece> piece) {
    return Finding.warn(
        change.subject(),
        "what was changed there since delivery " + delivery + " is lost",
        difference(change, piece),
        "");
  }

  private String difference(ChangedThere change, Optional<Piece> piece) {
    if (change.text().isEmpty()) {
      return "other bytes";
    }
    return Optional.ofNullable(left.get(change.key()))
        .map(before -> TextDiffs.brief(before, change.text().get()))
        .or(
            () ->
                piece
                    .flatMap(KeepOrReplace::text)
                    .map(
                        wanted ->
                            "against what would stand there now:\n"
                                + TextDiffs.brief(wanted, change.text().get())))
        .orElse("what exactly cannot be told, as what was left there cannot be made again");
  }

  /** The piece that takes its place: its own, or one named by another content of it. */
  private Optional<Piece> counterpart(ChangedThere change, Wanted wanted) {
    return wanted.pieces().stream()
        .filter(piece -> !(piece instanceof Piece.Folder))
        .filter(piece -> family(Keys.of(server, piece)).equals(family(change.key())))
        .findFirst();
  }

  private static String family(String key) {
    return key.replaceFirst("-[0-9a-f]{12}(?=\\.\\w+$)", "");
  }

  /** The text of a piece; empty when it is none. */
  static Optional<String> text(Piece piece) {
    if (piece instanceof Piece.Fragment fragment) {
      return Optional.of(fragment.text());
    }
    return piece instanceof Piece.WholeFile file
        ? file.content().text(TextDiffs.MOST_BYTES)
        : Optional.empty();
  }

  private static Piece with(Piece piece, String text) {
    if (piece instanceof Piece.Fragment fragment) {
      return new Piece.Fragment(
          fragment.path(), fragment.name(), text, fragment.part(), fragment.pickUp());
    }
    Piece.WholeFile file = (Piece.WholeFile) piece;
    return new Piece.WholeFile(
        file.path(), Content.of(text), file.access(), file.part(), file.pickUp());
  }
}
