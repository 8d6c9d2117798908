package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * What the start of a command is made of, told without a clock: the classes that Java loads for it.
 *
 * @param outside of the archive of loaded classes
 * @param made at run time, as no archive holds them: methods of records, joined texts
 */
record StartCost(List<String> classes, List<String> outside, List<String> made) {
  private static final String QUIET = "-Xlog:disable -Xlog:all=off";

  /** Runs a command by a copy of the launcher that differs in what Java logs alone. */
  static StartCost of(Program program, int exit, String... args) throws IOException {
    Path bin = Program.HOME.resolve("bin");
    mustHaveArchive(program);
    Path log = Files.createTempFile("classes", ".log");
    String launcher = Files.readString(bin.resolve("jolly"));
    assertThat(launcher).contains(QUIET);
    Path copy = Files.createTempFile(bin, "jolly", "");
    try {
      Files.writeString(
          copy, launcher.replace(QUIET, "-Xlog:disable -Xlog:class+load:file=" + log));
      Files.setPosixFilePermissions(copy, PosixFilePermissions.fromString("rwxr-xr-x"));
      List<String> words = new ArrayList<>(List.of(copy.toString()));
      words.addAll(Arrays.asList(args));
      Program.Run run = program.shell("exec \"$0\" \"$@\"", words.toArray(String[]::new));
      assertThat(run.exit()).as(run.all()).isEqualTo(exit);
      return of(Files.readAllLines(log));
    } finally {
      Files.delete(copy);
      Files.delete(log);
    }
  }

  private static StartCost of(List<String> log) {
    List<String> loaded = log.stream().filter(line -> line.contains(" source: ")).toList();
    List<String> outside =
        loaded.stream().filter(line -> !line.contains("source: shared objects file")).toList();
    return new StartCost(
        loaded.stream().map(line -> line.replaceFirst("^(?:\\[[^]]*])+ (\\S+) .*", "$1")).toList(),
        outside,
        outside.stream().filter(line -> line.contains("java.lang.invoke.LambdaForm")).toList());
  }

  /** It is made in the background by the first start. */
  private static void mustHaveArchive(Program program) {
    program.ends(0, "--version");
    File start = Program.HOME.resolve("start").toFile();
    Yard.until(
        "the archive of loaded classes",
        () ->
            Optional.ofNullable(start.list()).stream()
                .flatMap(Arrays::stream)
                .anyMatch(file -> file.endsWith(".jsa")));
  }

  /** What a start may cost at most. */
  void isAtMost(int mostClasses, int mostOutside, int mostMade) {
    assertThat(classes.size()).as("classes").isLessThanOrEqualTo(mostClasses);
    assertThat(outside.size()).as("%s", outside).isLessThanOrEqualTo(mostOutside);
    assertThat(made.size()).as("%s", made).isLessThanOrEqualTo(mostMade);
    assertThat(classes)
        .noneMatch(name -> name.endsWith("databind.ObjectMapper"))
        .doesNotContain("java.text.SimpleDateFormat");
  }
}
