package jollycrate.memory;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import jollycrate.app.DataSource;
import jollycrate.app.Script;
import jollycrate.host.Ran;

/**
 * A database that commits every statement by itself. It understands {@code ADD name}, which fails
 * when that is there, and {@code DROP name}, which does not mind when it is gone.
 */
final class MemoryDatabase {
  private static final int WORDS_TO_CONNECT = 4;
  private static final int FIRST_STATEMENT = 9;

  private final Map<String, String> tables = new TreeMap<>();
  private final Map<String, String> noted = new TreeMap<>();

  /** A data source with a script of two statements, and with what undoes it. */
  static DataSource source(Path folder) {
    try {
      Path driver = Files.writeString(folder.resolve("driver.jar"), "driver");
      Path apply = Files.writeString(folder.resolve("1.sql"), "ADD frame; ADD wheel");
      Path undo = Files.writeString(folder.resolve("undo-1.sql"), "DROP wheel; DROP frame");
      return new DataSource(
          "jdbc/memory",
          "jdbc:memory",
          "anna",
          Optional.empty(),
          driver,
          Optional.of("memory.Driver"),
          1,
          Duration.ofSeconds(1),
          List.of(
              new Script(
                  "1.sql",
                  new Script.Sql(apply, Optional.empty()),
                  Optional.of(new Script.Sql(undo, Optional.empty())),
                  Duration.ofSeconds(5))));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  static boolean isAsked(List<String> command) {
    return command.stream().anyMatch(word -> word.startsWith("jollycrate.probe."));
  }

  /** All that is to be seen of it. */
  Map<String, String> seen() {
    Map<String, String> all = new TreeMap<>(tables);
    noted.forEach((script, told) -> all.put(script, told.substring(0, told.lastIndexOf('\t'))));
    return all;
  }

  /** As the program that asks a database tells it. */
  Ran run(String input, Runnable point) {
    List<String> lines = List.of(input.split("\n", -1));
    List<String> words = lines.subList(WORDS_TO_CONNECT, lines.size() - 1);
    if (words.get(0).isEmpty()) {
      return told("ok\tmemory\t1");
    }
    return told(words.get(0).equals("list") ? listed() : turned(words, point));
  }

  private static Ran told(String text) {
    return new Ran(0, text + "\n", "");
  }

  private String listed() {
    StringBuilder told = new StringBuilder();
    noted.forEach(
        (script, row) -> {
          int by = row.lastIndexOf('\t');
          told.append("script\t" + script + "\t" + row.substring(0, by) + "\tnow");
          told.append(row.substring(by)).append('\n');
        });
    return told + "end";
  }

  private String turned(List<String> words, Runnable point) {
    String script = words.get(2);
    String digest = words.get(3);
    String stands = noted.getOrDefault(script, "\t\t").split("\t", -1)[1];
    if (!stands.equals(words.get(6))) {
      return "other\t" + stands;
    }
    note(script, digest, words.get(7), words.get(5));
    for (String line : words.subList(FIRST_STATEMENT, words.size())) {
      point.run();
      String[] statement =
          URLDecoder.decode(line.split("\t")[2], StandardCharsets.UTF_8).split(" ");
      if (statement[0].equals("ADD") && tables.putIfAbsent(statement[1], "") != null) {
        return "at\t1\tfalse\nsql\t42S01\t1\tit is there";
      }
      if (statement[0].equals("DROP")) {
        tables.remove(statement[1]);
      }
    }
    point.run();
    note(script, digest, words.get(8), words.get(5));
    return "turned";
  }

  private void note(String script, String digest, String stage, String by) {
    if (stage.isEmpty()) {
      noted.remove(script);
    } else {
      noted.put(script, digest + "\t" + stage + "\t" + by);
    }
  }
}
