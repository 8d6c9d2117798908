package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.function.UnaryOperator;
import jollycrate.ssh.Sshd;

/** A Tomcat that somebody unpacked and edited by hand; closing it ends its process. */
final class OwnTomcat implements AutoCloseable {
  final Path folder;
  final int http = Workshop.freePort();
  private final Path conf;

  /** As it comes out of its archive, on ports of its own. */
  OwnTomcat(Line line, Path parent) throws IOException {
    Path into = Files.createDirectories(parent.resolve("own"));
    run(into, "tar", "-xzf", line.archive().toString(), "--strip-components=1");
    this.folder = into.toRealPath();
    this.conf = folder.resolve("conf");
    server(
        text ->
            text.replace("port=\"8080\"", "port=\"" + http + "\"")
                .replace("port=\"8005\"", "port=\"" + Workshop.freePort() + "\""));
    Path options = folder.resolve("bin/setenv.sh");
    Files.writeString(
        options, "CATALINA_OPTS='-XX:TieredStopAtLevel=1 -XX:+UseSerialGC -Dbell=ding'\n");
  }

  /** The program in a folder where it is described as server 'shop' on a machine 'app1'. */
  Program behind(Sshd sshd, Path desk) throws IOException {
    Program program = Program.beside(sshd, desk);
    Files.writeString(
        desk.resolve("servers.toml"),
        """
        [server.shop]
        host = "app1"
        installation = "%s"
        folder = "%s"
        http = %d
        """
            .formatted(folder, folder, http),
        StandardOpenOption.APPEND);
    return program;
  }

  /** Edits server.xml. */
  OwnTomcat server(UnaryOperator<String> edit) throws IOException {
    Path file = conf.resolve("server.xml");
    Files.writeString(file, edit.apply(Files.readString(file)));
    return this;
  }

  /** Another encoding, other line ends, another engine and host, a port behind a property. */
  OwnTomcat odd() throws IOException {
    server(
        text ->
            text.replace("encoding=\"UTF-8\"", "encoding=\"ISO-8859-1\"")
                .replace("<Server ", "<!-- Köln,\tHalle 2 -->\n<Server ")
                .replace("\"" + http + "\"", "\"${bell.port:-1}\"")
                .replace(
                    "<Engine name=\"Catalina\" defaultHost=\"localhost\">",
                    "<Engine\tdefaultHost='Desk.Example'\n   name='Shop'>")
                .replace(
                    "<Host name=\"localhost\"  appBase=\"webapps\"",
                    "<Host name='desk.example' appBase='apps'")
                .replace("\n", "\r\n"));
    Path file = conf.resolve("server.xml");
    Charset latin = StandardCharsets.ISO_8859_1;
    Files.write(file, Files.readString(file).getBytes(latin));
    assertThat(Files.readString(file, latin)).contains("Köln").contains("'apps'");
    Path properties = conf.resolve("catalina.properties");
    Files.writeString(properties, Files.readString(properties) + "\nbell.port = " + http + "\n");
    Files.move(folder.resolve("webapps"), folder.resolve("apps"));
    return this;
  }

  /** As Debian lays servers out: configuration and logs elsewhere, behind links. */
  OwnTomcat linked(Path etc, Path log) throws IOException {
    Files.move(conf, etc);
    Files.createSymbolicLink(conf, etc);
    Files.delete(folder.resolve("logs"));
    Files.createDirectory(log);
    Files.createSymbolicLink(folder.resolve("logs"), log);
    return this;
  }

  /** What it writes to belongs to a user who may do little; its folder and the rest, to root. */
  OwnTomcat of(String user) throws IOException {
    for (String name : List.of("webapps", "logs", "temp", "work")) {
      run(folder, "chown", "-R", user, name);
    }
    run(folder, "chmod", "-R", "a+rX", ".");
    for (Path parent = folder; parent.startsWith("/tmp/"); parent = parent.getParent()) {
      run(parent, "chmod", "a+x", ".");
    }
    return this;
  }

  /** User by whom a process runs. */
  static String userOf(long pid) throws IOException {
    return Files.getOwner(Path.of("/proc/" + pid)).getName();
  }

  /** Starts it by its own script; back when it answers. */
  OwnTomcat start() throws IOException {
    run(folder, "setsid", "-w", folder.resolve("bin/startup.sh").toString());
    Yard.until("port " + http, this::answers);
    return this;
  }

  private boolean answers() {
    try {
      Pages.get("http://127.0.0.1:" + http + "/");
      return true;
    } catch (IOException notYet) {
      return false;
    }
  }

  /** What it printed since it last printed something. */
  String printedSince(String last) throws IOException {
    String printed = Files.readString(folder.resolve("logs/catalina.out"));
    return printed.substring(printed.lastIndexOf(last));
  }

  /** Its processes. */
  List<Long> processes() {
    return ProcessHandle.allProcesses()
        .filter(handle -> arguments(handle).contains("-Dcatalina.base=" + folder + "\0"))
        .map(ProcessHandle::pid)
        .toList();
  }

  private static String arguments(ProcessHandle handle) {
    try {
      return Files.readString(Path.of("/proc/" + handle.pid() + "/cmdline"));
    } catch (IOException ended) {
      return "";
    }
  }

  /** Every path of its folders, told by a script that knows nothing of us. */
  Trace trace(Path... further) throws IOException {
    Trace trace = Workshop.trace(folder);
    for (Path one : further) {
      trace = trace.and(Workshop.trace(one));
    }
    return trace;
  }

  private static void run(Path folder, String... command) throws IOException {
    Path out = Files.createTempFile("own", ".out");
    ProcessBuilder builder = new ProcessBuilder(command).directory(folder.toFile());
    builder.environment().keySet().removeIf(name -> name.startsWith("CATALINA_"));
    Process process = builder.redirectErrorStream(true).redirectOutput(out.toFile()).start();
    try {
      assertThat(process.waitFor()).as(Files.readString(out)).isZero();
    } catch (InterruptedException e) {
      throw new AssertionError(e);
    }
    Files.delete(out);
  }

  @Override
  public void close() {
    processes().forEach(Yard::kill);
  }
}
