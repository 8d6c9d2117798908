package jollycrate.app;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/**
 * What {@code jolly.toml} describes.
 *
 * @param file where it stands; empty for an application made of an artifact alone
 * @param version empty: the artifact tells
 * @param program how it runs as a program of its own
 */
public record Application(
    Optional<Path> file,
    String name,
    Optional<String> version,
    Making making,
    Context context,
    List<DataSource> dataSources,
    Access access,
    Program program,
    List<Check> checks,
    List<DataCheck> data) {
  /** An application of which nothing is known but its artifact. */
  public static Application of(
      Path artifact, String name, Optional<String> path, Duration startsWithin) {
    return new Application(
        Optional.empty(),
        name,
        Optional.empty(),
        Making.finished(artifact, Map.of()),
        new Context(path, Optional.empty(), startsWithin, List.of()),
        List.of(),
        Access.NONE,
        Program.PLAIN,
        List.of(),
        List.of());
  }

  /** An application of which nothing is known but its name. */
  public static Application undescribed(String name) {
    return of(Path.of(name), name, Optional.empty(), Context.STARTS_WITHIN);
  }

  /** The same at a context path. */
  public Application at(String contextPath) {
    return with(version, making, context.at(contextPath), dataSources);
  }

  /**
   * The same, of which a finished file is delivered: nothing is built or packed.
   *
   * @param release its version
   */
  public Application delivering(Path finished, Optional<String> release) {
    return with(release, Making.finished(finished, making.settings()), context, dataSources);
  }

  /** The same with other data sources. */
  public Application withDataSources(List<DataSource> others) {
    return with(version, making, context, others);
  }

  /** The same with other checks. */
  public Application checking(List<Check> others) {
    return new Application(
        file, name, version, making, context, dataSources, access, program, others, data);
  }

  /** The same whose data sources are not asked. */
  public Application askingNoData() {
    return new Application(
        file, name, version, making, context, dataSources, access, program, checks, List.of());
  }

  /** Files beside the tool that its delivery takes from: artifact, drivers, a settings file. */
  @JsonIgnore
  public List<Path> files() {
    return Stream.of(
            making.artifact().stream(),
            dataSources.stream().map(DataSource::driver),
            dataSources.stream()
                .flatMap(source -> source.scripts().stream())
                .flatMap(script -> script.files().stream()),
            program.settings().flatMap(Program.SettingsFile::copied).stream())
        .flatMap(found -> found)
        .distinct()
        .toList();
  }

  /**
   * The same from another place: references in it start from there.
   *
   * @param description the file that describes it there; empty: none does
   * @param place where each of its files is there
   */
  public Application movedTo(Optional<Path> description, UnaryOperator<Path> place) {
    Path folder = description.map(Path::toAbsolutePath).map(Path::getParent).orElse(Path.of(""));
    return new Application(
        description,
        name,
        version,
        Making.finished(place.apply(making.artifact().orElseThrow()), making.settings()),
        context.from(folder),
        dataSources.stream().map(source -> source.movedTo(place).from(folder)).toList(),
        access.from(folder),
        program.copying(place),
        checks,
        data);
  }

  private Application with(
      Optional<String> release, Making made, Context place, List<DataSource> sources) {
    return new Application(
        file, name, release, made, place, sources, access, program, checks, data);
  }
}
