import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintStream;
import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import jollycrate.app.ApplicationFile;
import jollycrate.app.Check;
import jollycrate.app.Setting;
import jollycrate.check.Checker;
import jollycrate.check.HttpRequester;
import jollycrate.check.People;
import jollycrate.cli.Jolly;
import jollycrate.watch.Interrupts;

/**
 * Mutates files that commands read (projects, descriptions of APIs, recordings, records of servers,
 * configurations of adopted servers) and answers that checks get, and runs the whole command each
 * time. A fault is exit code 1, more than 5 s of processor, or more memory than this process has.
 * Arguments: a file of cases, how many inputs, the seed. A case is a line: folder, file in it, words
 * of the command, with tabs between; a file that is a folder stands for each file below it.
 */
public class FuzzCommands {
  private static final long MOST_CPU = Duration.ofSeconds(5).toNanos();
  private static final long LIMIT_SECONDS = 60;
  private static final long MOST_BYTES = 1 << 20;
  private static final ThreadMXBean THREADS = ManagementFactory.getThreadMXBean();

  private final Random random;
  private final Mutations mutations;
  private final Path kept;
  private final Map<String, Integer> ends = new TreeMap<>();
  private final List<String> faults = new ArrayList<>();
  private final ExecutorService runner =
      Executors.newCachedThreadPool(
          work -> {
            Thread thread = new Thread(work, "fuzz");
            thread.setDaemon(true);
            return thread;
          });
  private byte[] answer = new byte[0];

  FuzzCommands(long seed, Path kept) {
    this.random = new Random(seed);
    this.mutations = new Mutations(random);
    this.kept = kept;
  }

  /** A command and a file that it reads. */
  private record Case(Path folder, Path file, List<String> words) {
    static List<Case> of(String line) throws IOException {
      String[] parts = line.split("\t");
      Path folder = Path.of(parts[0]);
      Path target = folder.resolve(parts[1]).toRealPath();
      if (!target.startsWith(folder.toRealPath())) {
        throw new IOException(target + " is not below " + folder + ": nothing else is mutated");
      }
      List<String> words = List.of(parts[2].split(" "));
      if (!Files.isDirectory(target)) {
        return List.of(new Case(folder, target, words));
      }
      try (var files = Files.walk(target)) {
        return files
            .filter(file -> Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS) && isText(file))
            .filter(file -> file.toFile().length() < MOST_BYTES)
            .sorted()
            .map(file -> new Case(folder, file, words))
            .toList();
      }
    }

    private static boolean isText(Path file) {
      String name = file.getFileName().toString();
      return !name.matches(".*\\.(war|jar|log|lck|pid|lock|jks|p12)") && !name.startsWith("lock");
    }
  }

  /** What is tried: true when it went as it should. */
  private interface Trial {
    int end() throws Exception;
  }

  public static void main(String[] args) throws Exception {
    List<List<Case>> cases = new ArrayList<>();
    for (String line : Files.readAllLines(Path.of(args[0]))) {
      List<Case> some = Case.of(line);
      if (!some.isEmpty()) {
        cases.add(some);
      }
    }
    int count = Integer.parseInt(args[1]);
    FuzzCommands fuzz =
        new FuzzCommands(
            Long.parseLong(args[2]), Files.createDirectories(Path.of("fuzz-faults")));
    fuzz.answers(cases.get(0).get(0).folder(), count / 4);
    for (int i = count / 4; i < count; i++) {
      List<Case> some = cases.get(fuzz.random.nextInt(cases.size()));
      fuzz.command(some.get(fuzz.random.nextInt(some.size())), i);
    }
    System.out.println(count + " inputs: " + fuzz.ends + ", " + fuzz.faults.size() + " faults");
    fuzz.faults.forEach(System.out::println);
    System.exit(fuzz.faults.isEmpty() ? 0 : 1);
  }

  private void command(Case one, int number) throws Exception {
    byte[] before = Files.readAllBytes(one.file());
    byte[] mutated = random.nextInt(4) == 0 ? mutations.flipped(before) : mutations.text(before);
    boolean drafts = one.words().equals(List.of("draft"));
    Path description = one.folder().resolve("jolly.toml");
    byte[] described = Files.exists(description) ? Files.readAllBytes(description) : null;
    Files.write(one.file(), mutated);
    StringBuilder said = new StringBuilder();
    String end = end(() -> run(one, said));
    Files.write(one.file(), before);
    if (drafts) {
      Files.deleteIfExists(description);
    } else if (described != null) {
      Files.write(description, described);
    }
    note(end, one.words() + " of " + one.file().getFileName(), mutated, number, said.toString());
  }

  private int run(Case one, StringBuilder said) {
    PrintStream out = new PrintStream(OutputStream.nullOutputStream(), true);
    var errors = new java.io.ByteArrayOutputStream();
    PrintStream err = new PrintStream(errors, true, StandardCharsets.UTF_8);
    Setting setting = Setting.ofThisProcess().in(one.folder());
    int exit =
        new Jolly(
                out,
                err,
                setting,
                name -> name.endsWith("_PASSWORD") ? "x" : System.getenv(name),
                new Interrupts())
            .run(one.words().toArray(String[]::new));
    said.append(errors.toString(StandardCharsets.UTF_8));
    return exit;
  }

  private String end(Trial trial) throws Exception {
    long[] cpu = new long[1];
    Future<Integer> ended =
        runner.submit(
            () -> {
              long began = THREADS.getCurrentThreadCpuTime();
              try {
                return trial.end();
              } finally {
                cpu[0] = THREADS.getCurrentThreadCpuTime() - began;
              }
            });
    try {
      int exit = ended.get(LIMIT_SECONDS, TimeUnit.SECONDS);
      return exit == 1
          ? "fault: exit 1"
          : cpu[0] > MOST_CPU ? "fault: " + cpu[0] / 1_000_000 + " ms of processor" : "exit " + exit;
    } catch (TimeoutException e) {
      return "fault: not at its end after " + LIMIT_SECONDS + " s";
    } catch (java.util.concurrent.ExecutionException e) {
      Throwable cause = e.getCause();
      return "fault: " + cause + " at " + List.of(cause.getStackTrace()).stream().limit(4).toList();
    }
  }

  private void note(String end, String what, byte[] input, int number, String said)
      throws IOException {
    ends.merge(end.startsWith("fault") ? "fault" : end, 1, Integer::sum);
    if (end.startsWith("fault")) {
      Path copy = Files.write(kept.resolve("c" + number), input);
      faults.add(copy + ": " + what + ": " + end + " " + said.lines().findFirst().orElse(""));
    }
  }

  /** Checks of a description, asked of a server that gives a mutated answer to everything. */
  private void answers(Path folder, int count) throws Exception {
    List<Check> checks =
        ApplicationFile.read(folder.resolve("jolly.toml"), Optional.empty(), reference -> "x")
            .checks();
    try (ServerSocket server = new ServerSocket(0, 50, InetAddress.getLoopbackAddress())) {
      runner.submit(() -> serve(server));
      URI base = URI.create("http://127.0.0.1:" + server.getLocalPort() + "/");
      for (int i = 0; i < count; i++) {
        byte[] seed = ANSWERS.get(random.nextInt(ANSWERS.size())).getBytes(StandardCharsets.UTF_8);
        answer = random.nextInt(3) == 0 ? mutations.flipped(seed) : mutations.text(seed);
        Check check = checks.get(random.nextInt(checks.size()));
        note(end(() -> asked(base, check)), "check '" + check.name() + "'", answer, i, "");
      }
    }
  }

  private static int asked(URI base, Check check) throws Exception {
    People people =
        new People(
            Map.of("robin", "x", "kim", "x", "mia", "x"), Map.of(), text -> {}, Map.of());
    try (HttpRequester requester = new HttpRequester(() -> false)) {
      return new Checker(requester, base, people).run(check).passed() ? 0 : 7;
    }
  }

  private Void serve(ServerSocket server) throws IOException {
    while (true) {
      Socket socket = server.accept();
      runner.submit(
          () -> {
            try (socket) {
              socket.setSoTimeout(2000);
              socket.getInputStream().read(new byte[8192]);
              socket.getOutputStream().write(answer);
              socket.shutdownOutput();
            }
            return null;
          });
    }
  }

  private static final List<String> ANSWERS =
      List.of(
          "HTTP/1.1 200 OK\r\nContent-Type: application/json; charset=utf-8\r\nConnection: close\r\n\r\n"
              + "{\"tickets\": [{\"id\": 1, \"bike\": \"red\"}], \"open\": 1}",
          "HTTP/1.1 200 OK\r\nContent-Type: text/html\r\nConnection: close\r\n\r\n"
              + "<html><head><link rel=stylesheet href=/a.css><script src='b.js'></script></head><body>"
              + "<form action=j_security_check method=post><input name=j_username><input name=j_password"
              + " type=password></form><img src=c.png></body></html>",
          "HTTP/1.1 302 Found\r\nLocation: /login?next=%2F\r\nSet-Cookie: JSESSIONID=1; Path=/; HttpOnly"
              + "\r\nContent-Length: 0\r\nConnection: close\r\n\r\n",
          "HTTP/1.1 401 Unauthorized\r\nWWW-Authenticate: Basic realm=\"Spokes\"\r\nContent-Length: 3\r\n"
              + "Connection: close\r\n\r\nno\n",
          "HTTP/1.1 200 OK\r\nTransfer-Encoding: chunked\r\nContent-Type: text/plain\r\nConnection:"
              + " close\r\n\r\n5\r\nhello\r\n0\r\n\r\n",
          "HTTP/1.1 500 Internal Server Error\r\nContent-Type: text/html;charset=utf-8\r\nConnection:"
              + " close\r\n\r\n<h1>java.lang.IllegalStateException: no bell</h1><pre>at spokes.Desk.get"
              + "(Desk.java:12)</pre>");
}
