package jollycrate.app;

import java.util.List;
import org.tomlj.TomlPosition;
import org.tomlj.TomlTable;

/** A table of one file; several lie over each other, the one that counts first. */
record Layer(TomlFile file, TomlTable table) {
  boolean has(String key) {
    return table.contains(List.of(key));
  }

  Object get(String key) {
    return table.get(List.of(key));
  }

  Place place(String key) {
    return new Place(file, table.inputPositionOf(List.of(key)));
  }

  /** Where something stands. */
  record Place(TomlFile file, TomlPosition position) {
    void problem(String message, String fix) {
      file.problem(position, message, fix);
    }

    @Override
    public String toString() {
      return file.path() + ":" + position.line();
    }
  }
}
