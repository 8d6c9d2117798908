package rack.server;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentMap;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;

/**
 * Shows the pages of what hangs on its hooks. A file {@code hooks/NAME.hook} has two lines, a path
 * and an archive; the file {@code doors} lists the paths that are open, a line {@code open /PATH}
 * each. What became of a hook it writes beside it: {@code NAME.hung} with the first words of the
 * hook, {@code NAME.dropped} with the reason, {@code NAME.taken} when the hook went. The page
 * {@code /.rack} lists the paths of what hangs, a line each.
 */
public final class Rack {
  private static final String HOOK = ".hook";
  private static final long LOOKS_EVERY_MILLIS = 100;

  private final Path folder;
  private final ConcurrentMap<String, Hung> hung = new ConcurrentHashMap<>();
  private Map<String, String> seen = Map.of();

  /** What hangs on a hook. */
  private record Hung(String path, ZipFile archive) {}

  private Rack(Path folder) {
    this.folder = folder;
  }

  /** Takes its folder, an address and a port. */
  public static void main(String[] args) throws IOException {
    Rack rack = new Rack(Path.of(args[0]));
    HttpServer server =
        HttpServer.create(new InetSocketAddress(args[1], Integer.parseInt(args[2])), 0);
    server.createContext("/", rack::answer);
    server.createContext("/.rack", rack::list);
    server.start();
    System.out.println("rack listens on " + args[2]);
    Executors.newSingleThreadScheduledExecutor()
        .scheduleWithFixedDelay(rack::look, 0, LOOKS_EVERY_MILLIS, TimeUnit.MILLISECONDS);
  }

  private void look() {
    try {
      Map<String, String> now = new TreeMap<>();
      try (DirectoryStream<Path> hooks =
          Files.newDirectoryStream(folder.resolve("hooks"), "*" + HOOK)) {
        for (Path hook : hooks) {
          String file = hook.getFileName().toString();
          now.put(file.substring(0, file.length() - HOOK.length()), Files.readString(hook));
        }
      }
      for (String name : seen.keySet()) {
        if (!now.containsKey(name)) {
          takeDown(name);
          tell(name, "taken", "");
        }
      }
      for (Map.Entry<String, String> hook : now.entrySet()) {
        if (!hook.getValue().equals(seen.get(hook.getKey()))) {
          takeDown(hook.getKey());
          hang(hook.getKey(), hook.getValue());
        }
      }
      seen = now;
    } catch (IOException e) {
      System.out.println("rack cannot look: " + e);
    }
  }

  private void hang(String name, String text) throws IOException {
    String[] lines = text.split("\n");
    try {
      if (!Files.readString(folder.resolve("doors"))
          .lines()
          .toList()
          .contains("open " + lines[0])) {
        throw new IOException("the door " + lines[0] + " is not open");
      }
      ZipFile archive = new ZipFile(lines[1]);
      if (archive.getEntry("index.html") == null) {
        archive.close();
        throw new IOException("there is no index.html in " + lines[1]);
      }
      hung.put(name, new Hung(lines[0], archive));
      System.out.println("hung " + name);
      tell(name, "hung", text);
    } catch (IOException e) {
      System.out.println("dropped " + name + ": " + e.getMessage());
      tell(name, "dropped", text + e.getMessage());
    }
  }

  private void takeDown(String name) throws IOException {
    Files.deleteIfExists(mark(name, "hung"));
    Hung old = hung.remove(name);
    if (old != null) {
      old.archive().close();
      System.out.println("took down " + name);
    }
  }

  private Path mark(String name, String what) {
    return folder.resolve("hooks").resolve(name + "." + what);
  }

  private void tell(String name, String what, String text) throws IOException {
    Files.writeString(mark(name, what), text);
  }

  private void list(HttpExchange exchange) throws IOException {
    String page =
        hung.values().stream().map(one -> one.path() + "\n").collect(Collectors.joining());
    send(exchange, page.getBytes(StandardCharsets.UTF_8), "text/plain");
    exchange.close();
  }

  private void answer(HttpExchange exchange) throws IOException {
    String asked = exchange.getRequestURI().getPath();
    for (Hung one : hung.values()) {
      if (asked.startsWith(one.path() + "/")) {
        String entry = asked.substring(one.path().length() + 1);
        send(exchange, one.archive(), entry.isEmpty() ? "index.html" : entry);
        return;
      }
    }
    exchange.sendResponseHeaders(404, -1);
    exchange.close();
  }

  private static void send(HttpExchange exchange, ZipFile archive, String name) throws IOException {
    ZipEntry entry = archive.getEntry(name);
    if (entry == null || entry.isDirectory() || name.startsWith("WEB-INF/")) {
      exchange.sendResponseHeaders(404, -1);
    } else {
      try (InputStream in = archive.getInputStream(entry)) {
        send(exchange, in.readAllBytes(), "text/html");
      }
    }
    exchange.close();
  }

  private static void send(HttpExchange exchange, byte[] page, String type) throws IOException {
    exchange.getResponseHeaders().set("Content-Type", type + "; charset=UTF-8");
    exchange.sendResponseHeaders(200, page.length == 0 ? -1 : page.length);
    exchange.getResponseBody().write(page);
  }
}
