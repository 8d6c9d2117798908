package jollycrate.hosting;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/**
 * A descriptor inside an archive, as its server is to find it there: it starts from the
 * application's own and keeps everything else in it.
 */
public final class InnerDescriptor {
  private final XmlDocument document;
  private final String prefix;
  private final StringBuilder added = new StringBuilder();
  private Predicate<XmlElement> replaced = child -> false;

  private InnerDescriptor(XmlDocument document) {
    this.document = document;
    String root = document.root().qualifiedName();
    this.prefix = root.substring(0, root.length() - document.root().name().length());
  }

  /**
   * The application's own, or one that says nothing.
   *
   * @param empty as it is where the application brings none
   * @param refusals gets that its own cannot be read
   */
  public static InnerDescriptor of(DerivedWar war, String path, String empty, Refusals refusals) {
    try {
      return of(path, war.text(path), empty);
    } catch (XmlException broken) {
      refusals.refuse(path, broken.getMessage(), "Fix it in the archive");
      return of(path, Optional.empty(), empty);
    }
  }

  /** The same of a text. */
  public static InnerDescriptor of(String path, Optional<byte[]> own, String empty) {
    return new InnerDescriptor(
        own.map(bytes -> XmlDocument.parse(path, bytes))
            .orElseGet(() -> XmlDocument.parse(path, empty)));
  }

  /** One element with a text, in place of all of that name. */
  public void set(String element, String value) {
    replaced = replaced.or(child -> child.name().equals(element));
    added.append("  ").append(element(element, value)).append('\n');
  }

  /**
   * An element with others inside, in place of the one that is told from its like by the first of
   * those.
   *
   * @param inside names of the elements in it, each with its text behind
   */
  public void put(String element, String... inside) {
    replaced = replaced.or(child -> isOne(child, element, inside[0], inside[1]));
    added.append("  <").append(prefix).append(element).append('>');
    for (int i = 0; i < inside.length; i += 2) {
      added.append(element(inside[i], inside[i + 1]));
    }
    added.append("</").append(prefix).append(element).append(">\n");
  }

  /** Whether the application's own has an element that holds another with that text. */
  public boolean has(String element, String inside, String text) {
    return document.root().children().stream()
        .anyMatch(child -> isOne(child, element, inside, text));
  }

  private static boolean isOne(XmlElement child, String element, String inside, String text) {
    return child.name().equals(element) && child.childText(inside).equals(text);
  }

  private String element(String name, String text) {
    String qualified = prefix + name;
    return "<" + qualified + ">" + XmlDocument.escape(text) + "</" + qualified + ">";
  }

  /** Whether it says anything that the application's own does not. */
  public boolean says() {
    return !added.isEmpty();
  }

  /** The text as it goes into the archive. */
  public byte[] text() {
    XmlElement root = document.root();
    List<Splice> splices = new ArrayList<>();
    root.children().stream()
        .filter(replaced)
        .forEach(child -> splices.add(document.removing(child)));
    splices.add(document.inserting(root, added.toString()));
    return document.with(splices).bytes();
  }
}
