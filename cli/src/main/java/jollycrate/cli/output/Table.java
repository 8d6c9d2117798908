package jollycrate.cli.output;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;

/** Rows in columns as wide as their widest cell; the last column is as long as it is. */
public final class Table {
  /** A cell with the way it is set off, which counts for no width. */
  private record Cell(String text, UnaryOperator<String> style, boolean right) {}

  private static final String GAP = "  ";

  private final String margin;
  private final List<List<Cell>> rows = new ArrayList<>();
  private List<Cell> row = new ArrayList<>();

  /**
   * @param margin before every row
   */
  public Table(String margin) {
    this.margin = margin;
  }

  /** Begins a row. */
  public Table row() {
    row = new ArrayList<>();
    rows.add(row);
    return this;
  }

  /** Adds a cell. */
  public Table cell(String text) {
    return cell(text, UnaryOperator.identity());
  }

  /** Adds a cell that is set off. */
  public Table cell(String text, UnaryOperator<String> style) {
    row.add(new Cell(text, style, false));
    return this;
  }

  /** Adds an amount, which ends where the others of its column end. */
  public Table amount(String text) {
    row.add(new Cell(text, UnaryOperator.identity(), true));
    return this;
  }

  /** The rows as lines. */
  public List<String> lines() {
    return rows.stream().map(this::line).toList();
  }

  private String line(List<Cell> cells) {
    StringBuilder line = new StringBuilder(margin);
    for (int column = 0; column < cells.size(); column++) {
      Cell cell = cells.get(column);
      String room = " ".repeat(width(column) - length(cell.text()));
      String text = cell.style().apply(cell.text());
      line.append(cell.right() ? room + text : text + room).append(GAP);
    }
    return line.toString().stripTrailing();
  }

  private int width(int column) {
    return rows.stream()
        .filter(cells -> cells.size() > column)
        .mapToInt(cells -> length(cells.get(column).text()))
        .max()
        .orElse(0);
  }

  private static int length(String text) {
    return text.codePointCount(0, text.length());
  }
}
