package jollycrate.app;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import jollycrate.pack.Shape;

/** Which of the things that an application packs is meant. */
public final class PackChoice {
  private static final Set<Shape> RUN = Set.of(Shape.EXECUTABLE_WAR, Shape.MERGED_JAR);

  private PackChoice() {}

  /**
   * What is packed.
   *
   * @param name of a {@code [pack.NAME]}; empty: the one that is delivered, or the only one
   */
  public static PackDescription chosen(Application application, Optional<String> name) {
    List<String> names = application.making().packs().stream().map(PackDescription::name).toList();
    if (name.isPresent() && application.making().pack(name.get()).isEmpty()) {
      throw new NotDescribedException(
          "Cannot pack '"
              + name.get()
              + "': there is no [pack."
              + name.get()
              + "] in "
              + application.file().orElseThrow()
              + ". "
              + (names.equals(List.of(""))
                  ? "There is one [pack] without a name"
                  : "Described there: " + String.join(", ", names)));
    }
    return name.or(application.making()::delivered)
        .or(() -> names.size() == 1 ? Optional.of(names.get(0)) : Optional.empty())
        .flatMap(application.making()::pack)
        .orElseThrow(
            () ->
                new NotDescribedException(
                    "Cannot choose among "
                        + String.join(", ", names)
                        + ". Name one, or say in [app] which is delivered: pack = \""
                        + names.get(0)
                        + "\""));
  }

  /**
   * What runs by itself there: what is delivered anyway if it runs by itself, else the only one
   * that does.
   */
  public static PackDescription chosenToRun(Application application) {
    application
        .making()
        .delivered()
        .flatMap(application.making()::pack)
        .filter(pack -> !RUN.contains(pack.shape()) && !pack.shape().isWar())
        .ifPresent(
            pack -> {
              throw new NotDescribedException(
                  "Cannot run '"
                      + pack.name()
                      + "' by itself: "
                      + pack.shape().label()
                      + " is nothing that is delivered. Name another in [app] of "
                      + application.file().orElseThrow()
                      + ": one with shape = \"merged-jar\" or \"executable-war\"");
            });
    List<PackDescription> programs =
        application.making().packs().stream().filter(pack -> RUN.contains(pack.shape())).toList();
    return application
        .making()
        .delivered()
        .flatMap(application.making()::pack)
        .filter(programs::contains)
        .or(() -> programs.size() == 1 ? Optional.of(programs.get(0)) : Optional.empty())
        .orElseThrow(
            () ->
                new NotDescribedException(
                    programs.isEmpty()
                        ? "Cannot run '"
                            + application.name()
                            + "' by itself: "
                            + application.file().orElseThrow()
                            + " packs nothing that runs by itself. Add a [pack.NAME] with shape ="
                            + " \"merged-jar\" or \"executable-war\""
                        : "Cannot choose among "
                            + programs.stream()
                                .map(PackDescription::name)
                                .collect(Collectors.joining(", "))
                            + ". Say in [app] which is delivered: pack = \""
                            + programs.get(0).name()
                            + "\""));
  }
}
