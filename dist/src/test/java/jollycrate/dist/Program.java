package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import jollycrate.ssh.Sshd;
import jollycrate.xml.XmlDocument;

/** The built program: its jars in this process, or its launcher, as people run it. */
final class Program {
  static final String DATA = "JOLLY_DATA";

  static final Path HOME = Path.of(System.getProperty("jolly.program")).toAbsolutePath();
  private static final long LIMIT_SECONDS = 1500;

  /** Shorter ones are parts of ordinary words. */
  private static final int SHORT = 3;

  /** How a run went. */
  record Run(int exit, String out, String err) {
    String all() {
      return out + err;
    }
  }

  private final Path folder;
  private final Path home;
  private final Map<String, String> environment = new HashMap<>();
  private boolean launched;

  Program(Path folder) {
    this(folder, HOME);
  }

  /** Of another home. */
  Program(Path folder, Path home) {
    this.folder = folder;
    this.home = home;
    this.launched = !home.equals(HOME);
    environment.put(DATA, HOME.resolveSibling("test-data").toString());
  }

  /** In a folder where a machine 'app1' is described and trusted. */
  static Program beside(Sshd sshd, Path desk) throws IOException {
    Files.writeString(
        Files.createDirectories(desk).resolve("servers.toml"),
        """
        [host.app1]
        ssh = "app1"
        config = "%s"

        """
            .formatted(sshd.folder.resolve("config")));
    Program program = new Program(desk);
    program.ends(0, "host", "trust", "app1", "--yes");
    return program;
  }

  Program with(String variable, String value) {
    environment.put(variable, value);
    return this;
  }

  /** With a variable that its own process has, and others that it starts. */
  Program inheriting(String variable, String value) {
    return with(variable, value).launched();
  }

  /** By its launcher, each command in a process of its own. */
  Program launched() {
    launched = true;
    return this;
  }

  Path folder() {
    return folder;
  }

  Run run(String... args) {
    if (!launched) {
      return kept(WarmProgram.run(folder, environment, args), List.of(args));
    }
    List<String> command = new ArrayList<>(List.of(home.resolve("bin/jolly").toString()));
    command.addAll(List.of(args));
    return run(command);
  }

  /** Runs a command that must end with an exit code. */
  Run ends(int exit, String... args) {
    Run run = run(args);
    assertThat(run.exit()).as("jolly " + String.join(" ", args) + "\n" + run.all()).isEqualTo(exit);
    return run;
  }

  /** Runs a shell script with arguments. */
  Run shell(String script, String... args) {
    List<String> command = new ArrayList<>(List.of("sh", "-c", script));
    command.addAll(List.of(args));
    return run(command);
  }

  private Run run(List<String> command) {
    try {
      Path out = Files.createTempFile("jolly", ".out");
      Path err = Files.createTempFile("jolly", ".err");
      Process process = start(out, err, command);
      if (!process.waitFor(LIMIT_SECONDS, TimeUnit.SECONDS)) {
        process.destroyForcibly();
        throw new AssertionError(command + " did not end: " + Files.readString(out));
      }
      Run run = new Run(process.exitValue(), Files.readString(out), Files.readString(err));
      Files.delete(out);
      Files.delete(err);
      return kept(run, command);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      throw new AssertionError(e);
    }
  }

  private Run kept(Run run, List<String> command) {
    assertThat(secretForms().stream().filter(run.all()::contains)).as("%s", command).isEmpty();
    return run;
  }

  /** Passwords that it was given, in every form in which a text may hold them. */
  List<String> secretForms() {
    return environment.entrySet().stream()
        .filter(variable -> variable.getKey().contains("PASSWORD"))
        .map(Map.Entry::getValue)
        .filter(value -> value.length() > SHORT)
        .flatMap(
            value ->
                Stream.of(
                    value,
                    XmlDocument.escape(value),
                    value.replace("\\", "\\\\").replace("\"", "\\\""),
                    Base64.getEncoder().encodeToString(value.getBytes(StandardCharsets.UTF_8)),
                    URLEncoder.encode(value, StandardCharsets.UTF_8)))
        .distinct()
        .toList();
  }

  Process start(Path out, Path err, String... args) throws IOException {
    List<String> command = new ArrayList<>(List.of(home.resolve("bin/jolly").toString()));
    command.addAll(List.of(args));
    return start(out, err, command);
  }

  private Process start(Path out, Path err, List<String> command) throws IOException {
    ProcessBuilder builder = new ProcessBuilder(command).directory(folder.toFile());
    builder.environment().putAll(environment);
    return builder.redirectOutput(out.toFile()).redirectError(err.toFile()).start();
  }
}
