package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import jollycrate.host.Needs;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A service behind a real nginx: replaced without a failed request, and nginx left as it was. */
class FrontIT {
  private static final long BREATH_NANOS = 4_000_000;
  private static final Path NGINX = Path.of("/usr/sbin/nginx");
  private static final String PORT =
      "[program]\nport = { argument = \"{value}\" }\nrestart = \"never\"";
  private static final String CHECK =
      "[[check]]\nname = \"it rings\"\nget = \"/\"\ntext = \"bell\"";

  @TempDir Path folder;
  private int front;
  private String original;

  @BeforeEach
  void nginxIsHere() {
    Needs.here(Files.isExecutable(NGINX), "nginx is not installed");
  }

  private static String serves(String text) {
    return "serve(Integer.parseInt(args[0]), \"" + text + "\");";
  }

  private Yard fronted() throws IOException {
    Yard yard = Yard.with(folder, serves("bell 1"), PORT, CHECK);
    front = Workshop.freePort();
    int beside = Workshop.freePort();
    original =
        """
        daemon off; pid nginx.pid; error_log error.log; worker_processes 2;%s
        events {}
        http {
          access_log off;
          client_body_temp_path t1; proxy_temp_path t2; fastcgi_temp_path t3;
          uwsgi_temp_path t4; scgi_temp_path t5;
          upstream other { server 127.0.0.1:9; }
          upstream yard { # the bell
            server 127.0.0.1:9 weight=2;
            server 127.0.0.1:10; keepalive 2; }
          proxy_read_timeout 1s;
          server { listen 127.0.0.1:%d; location / { proxy_pass http://yard; } }
        }
        """
            .formatted("root".equals(System.getProperty("user.name")) ? " user root;" : "", front);
    Files.createDirectory(folder.resolve("ng"));
    Files.writeString(config(), original);
    Path servers = folder.resolve("servers.toml");
    Files.writeString(
        servers,
        Files.readString(servers)
            + "beside = "
            + beside
            + "\n[server.yard.front]\nconfig = \"ng/nginx.conf\"\nupstream = \"yard\"\n"
            + "url = \"http://127.0.0.1:"
            + front
            + "\"\n"
            + "test = "
            + toml(command("-t"))
            + "\n"
            + "reload = "
            + toml(command("-s", "reload"))
            + "\n");
    return yard;
  }

  private List<String> command(String... more) {
    String own = folder.resolve("ng").toString();
    List<String> command = new ArrayList<>();
    command.addAll(List.of(NGINX.toString(), "-p", own, "-c", "nginx.conf", "-e", "error.log"));
    command.addAll(List.of(more));
    return command;
  }

  private static String toml(List<String> command) {
    return command.stream().collect(Collectors.joining("\", \"", "[\"", "\"]"));
  }

  private Path config() {
    return folder.resolve("ng/nginx.conf");
  }

  private Process nginx() throws IOException {
    Process process =
        new ProcessBuilder(command())
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("nginx.out").toFile())
            .start();
    Yard.until("nginx", () -> asked().startsWith("502"));
    return process;
  }

  private String asked() {
    try {
      return Pages.get("http://127.0.0.1:" + front + "/");
    } catch (IOException e) {
      return e.toString();
    }
  }

  /** Asks all the time with four threads until it is closed. */
  private final class Load implements AutoCloseable {
    private final Map<String, Integer> answers = new ConcurrentHashMap<>();
    private final AtomicBoolean over = new AtomicBoolean();
    private final Thread[] threads =
        IntStream.range(0, 4).mapToObj(i -> new Thread(this::ask)).toArray(Thread[]::new);

    Load() {
      for (Thread thread : threads) {
        thread.start();
      }
    }

    private void ask() {
      while (!over.get()) {
        answers.merge(asked(), 1, Integer::sum);
        LockSupport.parkNanos(BREATH_NANOS);
      }
    }

    Map<String, Integer> ended() throws InterruptedException {
      over.set(true);
      for (Thread thread : threads) {
        thread.join();
      }
      return new TreeMap<>(answers);
    }

    @Override
    public void close() {
      over.set(true);
    }
  }

  @Test
  void replacedAndTakenBackWithoutAFailedRequest() throws Exception {
    try (Yard yard = fronted()) {
      Process nginx = nginx();
      try {
        yard.ok("deploy", "--to", "yard");
        assertThat(asked()).isEqualTo("200 bell 1");
        try (Load load = new Load()) {
          yard.pack("app.jar", serves("bell 2"));
          yard.ok("deploy", "--to", "yard");
          assertThat(asked()).isEqualTo("200 bell 2");
          yard.pack("app.jar", serves("no ring"));
          assertThat(yard.ends(5, "deploy", "--to", "yard").out()).contains("text expected");
          Map<String, Integer> answers = load.ended();
          assertThat(answers).containsOnlyKeys("200 bell 1", "200 bell 2");
          assertThat(answers.values()).allMatch(count -> count > 20);
        }
        yard.ok("undeploy", "yard", "--from", "yard");
        assertThat(Files.readString(config())).isEqualTo(original);
        assertThat(asked()).startsWith("502");
        assertThat(folder.resolve("ng").toFile().list()).doesNotContain(".nginx.conf.jolly-lock");
      } finally {
        nginx.destroy();
        nginx.waitFor();
      }
    }
  }

  @Test
  void aProgramThatIsTooSlowForTheFrontIsTold() throws Exception {
    try (Yard yard = fronted()) {
      Process nginx = nginx();
      try {
        yard.pack(
            "app.jar",
            """
            var server = com.sun.net.httpserver.HttpServer.create(
                new java.net.InetSocketAddress("127.0.0.1", Integer.parseInt(args[0])), 0);
            server.createContext("/", exchange -> {
              try { Thread.sleep(1500); } catch (InterruptedException e) { }
              exchange.sendResponseHeaders(200, 4);
              exchange.getResponseBody().write("bell".getBytes());
              exchange.close();
            });
            server.start();
            """);
        assertThat(yard.ends(5, "deploy", "--to", "yard").out())
            .contains("gave up waiting")
            .contains("asked directly, the program answers 200");
        assertThat(Files.readString(config())).isEqualTo(original);
      } finally {
        nginx.destroy();
        nginx.waitFor();
      }
    }
  }

  @Test
  void whoseFaultAnAnswerIsIsTold() throws Exception {
    try (Yard yard = fronted()) {
      assertThat(yard.ends(4, "deploy", "--to", "yard").out()).contains("no web server listens");
      Process nginx = nginx();
      try {
        yard.ok("deploy", "--to", "yard");
        String ours = Files.readString(config());
        Files.writeString(
            config(), ours.replace("server 127.0.0.1:" + yard.http, "server 127.0.0.1:11"));
        reload();
        Yard.until("the wrong way", () -> asked().startsWith("502"));
        assertThat(yard.ends(7, "check", "--on", "yard").out())
            .contains("sends requests to the wrong place: 127.0.0.1:11");
        Files.writeString(config(), ours + "oops");
        assertThat(yard.ends(4, "deploy", "--to", "yard").out())
            .contains("configuration is wrong already")
            .contains("unexpected end of file");
        Files.writeString(config(), ours);
        reload();
        Yard.until("the right way", () -> asked().startsWith("200"));
        Yard.kill(yard.program());
        yard.untilKeeperTellsThatItWasKilled();
        assertThat(yard.ends(8, "check", "--on", "yard").out())
            .contains("yard does not run: the program was killed (signal 9)");
      } finally {
        nginx.destroy();
        nginx.waitFor();
      }
    }
  }

  private void reload() throws IOException, InterruptedException {
    new ProcessBuilder(command("-s", "reload")).start().waitFor();
  }
}
