package jollycrate.cli.output;

import com.fasterxml.jackson.annotation.JsonUnwrapped;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.artifact.Comparison;
import jollycrate.file.Sizes;
import jollycrate.pack.PackWatch;
import jollycrate.pack.Packed;
import jollycrate.watch.Progress;

/** Shows what went into an archive, and how far packing is. */
public final class PackView implements PackWatch, Progress {
  private static final String MARGIN = "  ";
  private static final int FEW = 6;
  private static final long LARGE = 8_000_000;
  private static final long BETWEEN_NANOS = 80_000_000;

  private final Screen screen;
  private final Style style;
  private final Path folder;
  private long lastDrawn;

  /** What machines read. */
  public record Document(@JsonUnwrapped Packed packed, Optional<String> digest) {}

  /**
   * @param folder that paths are shown from
   */
  public PackView(Screen screen, Path folder) {
    this.screen = screen;
    this.style = screen.style();
    this.folder = folder;
  }

  @Override
  public void packed(String file, long done, long all) {
    long now = System.nanoTime();
    if (all >= LARGE && now - lastDrawn > BETWEEN_NANOS) {
      lastDrawn = now;
      screen.live(
          "packing "
              + file
              + ": "
              + Sizes.told(done)
              + " of "
              + Sizes.told(all)
              + ", "
              + 100 * done / all
              + " %");
    }
  }

  @Override
  public void waitingFor(String what) {
    screen.live(what + " ...");
  }

  /** The whole sheet. */
  public void show(Packed packed, Optional<String> digest) {
    parts(packed);
    heaviest(packed);
    leftOut(packed);
    packed.remarks().forEach(this::remark);
    packed.since().ifPresent(this::since);
    screen.gap();
    packed.mainClass().ifPresent(main -> screen.line(style.faint("starts  ") + main));
    ended(packed);
    digest.ifPresent(told -> screen.line(style.faint("sha256 " + told)));
  }

  private void parts(Packed packed) {
    heading("went in, as " + packed.shape().label());
    Table table = new Table(MARGIN);
    for (Packed.Part part : packed.parts()) {
      table
          .row()
          .cell(part.name())
          .amount(Amounts.count(part.files(), "file", "files"))
          .amount(Sizes.told(part.bytes()));
    }
    table.lines().forEach(screen::line);
  }

  private void heading(String text) {
    screen.line(style.strong(text));
  }

  private void heaviest(Packed packed) {
    if (packed.heaviest().isEmpty()) {
      return;
    }
    heading("heaviest");
    Table table = new Table(MARGIN);
    for (Packed.Heavy heavy : packed.heaviest()) {
      table.row().amount(Sizes.told(heavy.bytes())).cell(heavy.path());
    }
    table.lines().forEach(screen::line);
  }

  private void leftOut(Packed packed) {
    if (packed.leftOut().isEmpty()) {
      return;
    }
    long saved = packed.leftOut().stream().mapToLong(Packed.LeftOut::bytes).sum();
    heading("left out" + (saved > 0 ? ", which saves " + Sizes.told(saved) : ""));
    Table table = new Table(MARGIN);
    for (Packed.LeftOut left : packed.leftOut()) {
      table
          .row()
          .cell(left.path())
          .amount(left.bytes() > 0 ? Sizes.told(left.bytes()) : "")
          .cell(left.reason(), style::faint);
    }
    some(table.lines());
  }

  private void some(List<String> lines) {
    lines.stream().limit(FEW).forEach(screen::line);
    if (lines.size() > FEW) {
      screen.line(
          MARGIN + style.faint("and " + (lines.size() - FEW) + " more; --json tells them all"));
    }
  }

  private void remark(Packed.Remark remark) {
    screen.line((remark.warning() ? style.odd("warn  ") : style.faint("note  ")) + remark.text());
    some(remark.details().stream().map(detail -> MARGIN + "    " + style.faint(detail)).toList());
  }

  private void since(Comparison since) {
    if (!since.isEmpty()) {
      heading("since the last, " + CompareView.summary(since));
      some(CompareView.lines(style, since));
    }
  }

  private void ended(Packed packed) {
    screen.line(
        style.good(packed.changed() ? "Packed" : "Unchanged:")
            + " "
            + style.place(shown(packed.file()))
            + ", "
            + Sizes.told(packed.size())
            + (packed.folder().isPresent() ? "" : " in " + entries(packed)));
    packed
        .folder()
        .ifPresent(
            unpacked ->
                screen.line(
                    "the same unpacked: "
                        + style.place(shown(unpacked) + "/")
                        + ", started by the script in it"));
  }

  private static String entries(Packed packed) {
    return Amounts.count(packed.entries(), "entry", "entries");
  }

  private String shown(Path file) {
    return Amounts.shown(folder, file);
  }

  /** One line each. */
  public void showAll(List<Packed> all) {
    Table table = new Table(MARGIN);
    for (Packed packed : all) {
      table
          .row()
          .cell(shown(packed.file()), style::place)
          .cell(packed.shape().label())
          .amount(Sizes.told(packed.size()))
          .amount(packed.folder().isPresent() ? "" : entries(packed))
          .cell(packed.changed() ? "packed" : "unchanged", style::good)
          .cell(packed.mainClass().map(main -> "starts " + main).orElse(""), style::faint);
    }
    table.lines().forEach(screen::line);
    all.stream()
        .flatMap(packed -> packed.remarks().stream())
        .filter(remark -> remark.warning() || !remark.details().isEmpty())
        .distinct()
        .forEach(this::remark);
  }

  /** The digest of one of several. */
  public void digest(Packed packed, String digest) {
    screen.line(style.faint("sha256 " + digest + "  " + shown(packed.file())));
  }
}
