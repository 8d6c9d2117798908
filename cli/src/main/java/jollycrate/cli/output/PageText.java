package jollycrate.cli.output;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.UnaryOperator;
import jollycrate.check.Times;
import org.jsoup.nodes.DataNode;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;

/** The parts of a page. Every text passes here and loses what is secret; jsoup escapes it. */
final class PageText {
  private static final Set<String> NUMBERS = Set.of("status", "time");
  private static final int BAR_WIDTH = 20;
  private static final int BAR_HEIGHT = 80;

  private final UnaryOperator<String> mask;
  private final Document document = Document.createShell("");

  PageText(UnaryOperator<String> mask) {
    this.mask = mask;
  }

  /** Its body. */
  Element begin(String title, String style) {
    document.selectFirst("html").attr("lang", "en");
    Element head = document.head();
    head.appendElement("meta").attr("charset", "utf-8");
    head.appendElement("meta")
        .attr("name", "viewport")
        .attr("content", "width=device-width, initial-scale=1");
    head.appendElement("meta").attr("name", "color-scheme").attr("content", "light dark");
    add(head, "title", title);
    head.appendElement("style").appendChild(new DataNode(style));
    return document.body();
  }

  String html() {
    return "<!DOCTYPE html>\n" + document.selectFirst("html").outerHtml() + "\n";
  }

  /** An element with a text. */
  Element add(Element to, String name, String text) {
    return to.appendElement(name).text(mask.apply(text));
  }

  /** A section with a heading that names it. */
  Element section(Element main, String heading) {
    String id = heading.toLowerCase(Locale.ROOT).replaceAll("\\W+", "-");
    Element section = main.appendElement("section").attr("aria-labelledby", id);
    add(section, "h2", heading).attr("id", id);
    return section;
  }

  /** The body of a table, which scrolls by itself where the page is narrow. */
  Element table(Element section, String name, String... heads) {
    Element scrolls =
        section
            .appendElement("div")
            .addClass("scrolls")
            .attr("role", "region")
            .attr("aria-label", name)
            .attr("tabindex", "0");
    Element table = scrolls.appendElement("table");
    Element row = table.appendElement("thead").appendElement("tr");
    for (String head : heads) {
      Element cell = head.isEmpty() ? row.appendElement("td") : add(row, "th", head);
      cell.attr("scope", "col");
      if (NUMBERS.contains(head)) {
        cell.addClass("number");
      }
    }
    row.select("td").removeAttr("scope");
    return table.appendElement("tbody");
  }

  /** A cell that says in a word and in a colour whether something is right. */
  void mark(Element row, boolean right, String word) {
    add(row, "td", word).addClass(right ? "good" : "bad");
  }

  /**
   * A picture that was taken.
   *
   * @param base64 as JPEG
   * @param told for whoever does not see it
   */
  void photo(Element figure, String base64, String told) {
    figure
        .appendElement("img")
        .attr("src", "data:image/jpeg;base64," + base64)
        .attr("alt", mask.apply(told));
  }

  /** A picture of how times are spread. */
  void bars(Element figure, List<Times.Bar> bars, String told) {
    int width = bars.size() * BAR_WIDTH;
    Element picture =
        figure
            .appendElement("svg")
            .attr("viewBox", "0 0 " + width + " " + BAR_HEIGHT)
            .attr("role", "img")
            .attr("aria-label", mask.apply(told));
    long most = Math.max(1, bars.stream().mapToLong(Times.Bar::count).max().orElse(1));
    for (int i = 0; i < bars.size(); i++) {
      Times.Bar bar = bars.get(i);
      long height = (long) Math.ceil(bar.count() * (double) BAR_HEIGHT / most);
      Element one =
          picture
              .appendElement("rect")
              .attr("x", "" + (i * BAR_WIDTH + 1))
              .attr("y", "" + (BAR_HEIGHT - height))
              .attr("width", "" + (BAR_WIDTH - 2))
              .attr("height", "" + height);
      add(one, "title", bar.count() + " up to " + TimesRows.shown(bar.upTo()));
    }
  }
}
