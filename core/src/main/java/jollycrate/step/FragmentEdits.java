package jollycrate.step;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import jollycrate.host.Content;
import jollycrate.host.HostException;
import jollycrate.server.Keys;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.ServerKind;
import jollycrate.server.Splicer;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.xml.XmlException;

/** Texts of somebody else with our fragments put in or taken out. */
final class FragmentEdits {
  private final ServerKind kind;
  private final Stock stock;
  private final Map<Path, String> edited = new LinkedHashMap<>();
  private final Map<Path, Piece.Fragment> lead = new HashMap<>();

  FragmentEdits(ServerKind kind, Stock stock) {
    this.kind = kind;
    this.stock = stock;
  }

  /**
   * A file that becomes another one.
   *
   * @param lead the fragment that tells which part of the placement the file is
   */
  record Edit(Piece.Fragment lead, Content content) {}

  /**
   * Every file that changes.
   *
   * @param released what goes, by key
   */
  List<Edit> of(List<Piece> pieces, Map<String, Standing.Held> released) {
    for (Piece piece : pieces) {
      if (piece instanceof Piece.Fragment fragment) {
        putIn(fragment);
      }
    }
    released.forEach(
        (key, held) -> {
          if (Keys.isFragment(key)) {
            takeOut(key, held);
          }
        });
    List<Edit> edits = new ArrayList<>();
    edited.forEach(
        (path, text) -> {
          if (!text.equals(text(path))) {
            edits.add(new Edit(lead.get(path), Content.of(text.getBytes(charset(path)))));
          }
        });
    return List.copyOf(edits);
  }

  private void putIn(Piece.Fragment fragment) {
    Path path = fragment.path();
    lead.merge(path, fragment, (a, b) -> a.part() == Part.SWITCH ? a : b);
    edit(path, (splicer, text) -> splicer.insert(text, fragment.name(), fragment.text()));
  }

  private void takeOut(String key, Standing.Held held) {
    Path path = Keys.path(stock.server(), key);
    String name = Keys.fragmentName(key);
    PickUp pickUp = kind.splicer(path).orElseThrow().pickUp();
    lead.putIfAbsent(path, new Piece.Fragment(path, name, "", held.part(), pickUp));
    edit(path, (splicer, text) -> splicer.remove(text, name));
  }

  private void edit(Path path, BiFunction<Splicer, String, String> change) {
    String text = edited.containsKey(path) ? edited.get(path) : text(path);
    try {
      edited.put(path, change.apply(kind.splicer(path).orElseThrow(), text));
    } catch (XmlException e) {
      throw new HostException(
          "Cannot edit '"
              + path
              + "' ("
              + e.getMessage()
              + "). Nothing was touched. Put it right there, then do this again");
    }
  }

  private String text(Path path) {
    return new String(stock.texts().getOrDefault(path, new byte[0]), charset(path));
  }

  /** In what is no UTF-8 every byte is kept as it is; what a kind inserts is ASCII. */
  private Charset charset(Path path) {
    boolean unicode =
        Optional.ofNullable(stock.texts().get(path)).flatMap(Content::text).isPresent();
    return unicode ? StandardCharsets.UTF_8 : StandardCharsets.ISO_8859_1;
  }
}
