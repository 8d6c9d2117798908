package jollycrate.app;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/**
 * What is done to a database once, before a release takes its place.
 *
 * @param name under which the database keeps that it was applied
 * @param undo what takes it back when its delivery is taken back; empty: it stays then
 * @param within how long it may take
 */
public record Script(String name, Work work, Optional<Work> undo, Duration within) {

  /** What is done. */
  @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "by")
  @JsonSubTypes({
    @JsonSubTypes.Type(value = Sql.class, name = "sql"),
    @JsonSubTypes.Type(value = Command.class, name = "run")
  })
  public sealed interface Work {
    /** Files beside the tool that it is made of. */
    List<Path> made();

    /** The same with its files in other places. */
    Work movedTo(UnaryOperator<Path> place);
  }

  /**
   * Statements of a file, sent to the database.
   *
   * @param splitAt line that ends a statement; empty: a semicolon does
   */
  public record Sql(Path file, Optional<String> splitAt) implements Work {
    @Override
    public List<Path> made() {
      return List.of(file);
    }

    @Override
    public Work movedTo(UnaryOperator<Path> place) {
      return new Sql(place.apply(file), splitAt);
    }
  }

  /**
   * A program of the team, run on the server's machine.
   *
   * @param words the program and its arguments
   * @param files what is brought there for it, by the name that it has in its working folder
   */
  public record Command(List<String> words, Map<String, Path> files) implements Work {
    @Override
    public List<Path> made() {
      return List.copyOf(files.values());
    }

    @Override
    public Work movedTo(UnaryOperator<Path> place) {
      Map<String, Path> moved = new TreeMap<>();
      files.forEach((name, file) -> moved.put(name, place.apply(file)));
      return new Command(words, moved);
    }
  }

  /** Files beside the tool that it is made of. */
  List<Path> files() {
    return Stream.concat(work.made().stream(), undo.stream().flatMap(it -> it.made().stream()))
        .toList();
  }

  /** The same with its files in other places. */
  Script movedTo(UnaryOperator<Path> place) {
    return new Script(name, work.movedTo(place), undo.map(it -> it.movedTo(place)), within);
  }
}
