package jollycrate.script;

import java.util.List;
import java.util.Optional;
import jollycrate.app.DataSource;
import jollycrate.app.Script;
import jollycrate.host.Fact;

/**
 * A script with all that it does and that undoes it.
 *
 * @param undo empty: nothing does
 */
public record Prepared(
    Script script, DataSource source, Fact<ScriptWork> work, Fact<Optional<ScriptWork>> undo) {

  /** Those of a data source, in their order. */
  static List<Prepared> of(DataSource source) {
    DataSource plain = source.applying(List.of());
    return source.scripts().stream().map(script -> of(plain, script)).toList();
  }

  private static Prepared of(DataSource source, Script script) {
    return new Prepared(
        script,
        source,
        ScriptWork.read(script.work()),
        script
            .undo()
            .map(undo -> ScriptWork.read(undo).map(Optional::of))
            .orElse(Fact.known(Optional.empty())));
  }

  public String name() {
    return script.name();
  }

  /** SHA-256 of what it does; empty when that cannot be read. */
  public String digest() {
    return work.map(ScriptWork::digest).orElse("");
  }
}
