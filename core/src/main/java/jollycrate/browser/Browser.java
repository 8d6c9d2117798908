package jollycrate.browser;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.File;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import java.util.stream.Stream;
import jollycrate.file.Trees;

/**
 * Chromium, or what is made from it, as it is installed here. It knows nobody, reaches no other
 * host than that of the page, and leaves nothing behind.
 */
public final class Browser {
  private static final List<String> NAMES =
      List.of("chromium", "chromium-browser", "google-chrome", "google-chrome-stable");

  private static final Duration STARTS_WITHIN = Duration.ofSeconds(20);
  private static final Duration QUIET = Duration.ofMillis(500);
  private static final long LOOK_AGAIN_MILLIS = 25;
  private static final int QUALITY = 55;
  private static final int MOST_PICTURE = 200_000;

  private final Path program;

  private Browser(Path program) {
    this.program = program;
  }

  /** The one on the path; empty when none is installed. */
  public static Optional<Browser> installed() {
    String path = System.getenv().getOrDefault("PATH", "");
    return Stream.of(path.split(File.pathSeparator))
        .flatMap(folder -> NAMES.stream().map(name -> Path.of(folder, name)))
        .filter(Files::isExecutable)
        .findFirst()
        .map(Browser::new);
  }

  /**
   * Loads a page, lets its scripts run until it is quiet, and tells what it did.
   *
   * @throws BrowserException when the browser does not do it
   */
  public Seen visit(Visit visit) {
    Path folder = Trees.temporary();
    Process process = start(folder, visit.url().getHost());
    try {
      URI address = address(folder, process);
      Watched watched = new Watched();
      Origin origin = new Origin(visit);
      try (Wire wire =
          new Wire(
              address,
              (method, told) -> {
                watched.event(method, told);
                origin.event(method, told);
              })) {
        return visit(wire, watched, origin, visit);
      }
    } finally {
      end(process);
      Trees.discard(folder);
    }
  }

  private Process start(Path folder, String host) {
    List<String> command =
        new ArrayList<>(
            List.of(
                program.toString(),
                "--headless",
                "--remote-debugging-port=0",
                "--user-data-dir=" + folder,
                "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE " + host,
                "--no-proxy-server",
                "--disable-gpu",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--disable-extensions",
                "--hide-scrollbars",
                "--window-size=1280,800"));
    if ("root".equals(System.getProperty("user.name"))) {
      command.add("--no-sandbox");
    }
    command.add("about:blank");
    try {
      return new ProcessBuilder(command)
          .redirectErrorStream(true)
          .redirectOutput(ProcessBuilder.Redirect.DISCARD)
          .start();
    } catch (IOException e) {
      throw new BrowserException("it does not start: " + e.getMessage());
    }
  }

  /** It writes its port and path into a file of its folder once it listens. */
  private static URI address(Path folder, Process process) {
    Path file = folder.resolve("DevToolsActivePort");
    List<String> told = new ArrayList<>();
    until(
        () -> {
          try {
            told.clear();
            told.addAll(Files.exists(file) ? Files.readAllLines(file) : List.of());
          } catch (IOException beingWritten) {
            return false;
          }
          return told.size() == 2 || !process.isAlive();
        },
        STARTS_WITHIN);
    if (told.size() < 2) {
      throw new BrowserException("it did not start within " + STARTS_WITHIN.toSeconds() + " s");
    }
    return URI.create("ws://127.0.0.1:" + told.get(0) + told.get(1));
  }

  private static Seen visit(Wire wire, Watched watched, Origin origin, Visit visit) {
    JsonNode target = wire.send("", "Target.createTarget", Map.of("url", "about:blank"));
    String id = target.path("targetId").asText();
    String page =
        wire.send("", "Target.attachToTarget", Map.of("targetId", id, "flatten", true))
            .path("sessionId")
            .asText();
    for (String part : List.of("Network", "Runtime", "Page")) {
      wire.send(page, part + ".enable", Map.of());
    }
    origin.guard(wire, page);
    for (Visit.Cookie cookie : visit.cookies()) {
      wire.send(
          page,
          "Network.setCookie",
          Map.of(
              "name", cookie.name(),
              "value", cookie.value(),
              "domain", cookie.domain(),
              "path", cookie.path()));
    }
    wire.send(page, "Page.navigate", Map.of("url", visit.url().toString()));
    until(() -> watched.isQuiet(QUIET.toNanos()), visit.limit());
    String picture =
        wire.send(page, "Page.captureScreenshot", Map.of("format", "jpeg", "quality", QUALITY))
            .path("data")
            .asText();
    return watched.seen(picture.length() > MOST_PICTURE ? "" : picture);
  }

  /** Looks again and again; what is not so within the limit is told as it is then. */
  private static void until(BooleanSupplier so, Duration limit) {
    long end = System.nanoTime() + limit.toNanos();
    try {
      while (!so.getAsBoolean() && System.nanoTime() < end) {
        TimeUnit.MILLISECONDS.sleep(LOOK_AGAIN_MILLIS);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new BrowserException("it was interrupted");
    }
  }

  private static void end(Process process) {
    List<ProcessHandle> all =
        Stream.concat(process.descendants(), Stream.of(process.toHandle())).toList();
    all.forEach(ProcessHandle::destroyForcibly);
    all.forEach(one -> one.onExit().join());
  }
}
