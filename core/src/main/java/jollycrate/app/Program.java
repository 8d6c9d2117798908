package jollycrate.app;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/**
 * How an artifact runs as a program of its own: {@code [program]} in {@code jolly.toml}.
 *
 * @param port how it is told its HTTP port; empty: nobody says
 * @param knowsPort whether it knows its port by itself
 * @param speaksHttp whether it can be asked over HTTP; else only its port can be looked at
 * @param address how it is told which address to bind
 * @param arguments may hold {@link #SETTINGS}, {@link #PORT} and {@link #ADDRESS}
 * @param java options of the JVM, may hold the same
 * @param variables by name; values may be references or hold the same
 * @param folder where it works, relative to the service's folder
 * @param ready a text that a line of its output holds once it is up
 * @param main class to start in place of the one that its manifest names
 * @param stopsWithin how long it may take to end when it is asked to
 * @param restarts whether it is started again after a crash
 * @param settings its settings file
 * @param dataSources how it is told of data sources, by their names
 */
public record Program(
    Optional<Way> port,
    boolean knowsPort,
    boolean speaksHttp,
    Optional<Way> address,
    List<String> arguments,
    List<String> java,
    Map<String, String> variables,
    String folder,
    Optional<String> ready,
    Optional<String> main,
    Duration stopsWithin,
    boolean restarts,
    Optional<SettingsFile> settings,
    Map<String, Handed> dataSources) {
  /** Where a program works unless told, apart from what is ours. */
  static final String WORK = "work";

  /** Stands for the path of the settings file. */
  public static final String SETTINGS = "{settings}";

  /** Stands for the HTTP port. */
  public static final String PORT = "{port}";

  /** Stands for the address to bind. */
  public static final String ADDRESS = "{address}";

  /** Everything that stands for something else. */
  public static final List<String> PLACEHOLDERS = List.of(SETTINGS, PORT, ADDRESS);

  /** How long a program may take to end when nothing is said. */
  public static final Duration STOPS_WITHIN = Duration.ofSeconds(20);

  /** Nothing is said. */
  public static final Program PLAIN =
      new Program(
          Optional.empty(),
          false,
          true,
          Optional.empty(),
          List.of(),
          List.of(),
          Map.of(),
          WORK,
          Optional.empty(),
          Optional.empty(),
          STOPS_WITHIN,
          false,
          Optional.empty(),
          Map.of());

  /**
   * A settings file outside of the artifact.
   *
   * @param name with a folder before it, where the program looks for it in there
   * @param copied the file it is a copy of; empty: written from {@code [settings]}
   */
  public record SettingsFile(String name, Optional<Path> copied) {}

  /** How a program is told of a data source. */
  public record Handed(Optional<Way> url, Optional<Way> user, Optional<Way> password) {}

  /** Whether an argument, an option of Java or a variable holds what stands for something. */
  public boolean holds(String placeholder) {
    return Stream.of(arguments, java, variables.values())
        .flatMap(Collection::stream)
        .anyMatch(text -> text.contains(placeholder));
  }

  /** The same with a settings file that is a copy of one in another place. */
  Program copying(UnaryOperator<Path> place) {
    return new Program(
        port,
        knowsPort,
        speaksHttp,
        address,
        arguments,
        java,
        variables,
        folder,
        ready,
        main,
        stopsWithin,
        restarts,
        settings.map(file -> new SettingsFile(file.name(), file.copied().map(place))),
        dataSources);
  }
}
