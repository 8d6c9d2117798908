package jollycrate.script;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import jollycrate.app.Script;
import jollycrate.file.Digests;
import jollycrate.file.IoReason;
import jollycrate.file.SmallFile;
import jollycrate.host.Fact;

/** All of what a script does; nothing beside the tool is read for it any more. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "by")
@JsonSubTypes({
  @JsonSubTypes.Type(value = ScriptWork.Statements.class, name = "statements"),
  @JsonSubTypes.Type(value = ScriptWork.Run.class, name = "run")
})
public sealed interface ScriptWork {
  /** The most bytes that a script may have. */
  long MOST_BYTES = 16 << 20;

  /** SHA-256 of what it does, whatever is told besides. */
  String digest();

  /** Statements of a file, in their order. */
  record Statements(List<Statement> all) implements ScriptWork {
    @Override
    public String digest() {
      return digestOf(all.stream().map(Statement::text).collect(Collectors.joining(";\n")));
    }
  }

  /**
   * A program with files in its working folder.
   *
   * @param files by name
   */
  record Run(List<String> words, Map<String, byte[]> files) implements ScriptWork {
    @Override
    public String digest() {
      StringBuilder all = new StringBuilder(String.join("\n", words));
      files.forEach((name, bytes) -> all.append('\n').append(name).append(Digests.of(bytes)));
      return digestOf(all.toString());
    }
  }

  private static String digestOf(String text) {
    return Digests.of(text.getBytes(StandardCharsets.UTF_8));
  }

  /** Reads what is described; unknown when it cannot be read, or is no SQL. */
  static Fact<ScriptWork> read(Script.Work described) {
    Path current = Path.of("");
    try {
      if (described instanceof Script.Sql sql) {
        current = sql.file();
        String text = text(current).replace("\r\n", "\n");
        return Fact.known(new Statements(Statement.of(text, sql.splitAt())));
      }
      Script.Command command = (Script.Command) described;
      Map<String, byte[]> files = new TreeMap<>();
      for (Map.Entry<String, Path> file : command.files().entrySet()) {
        current = file.getValue();
        files.put(file.getKey(), SmallFile.bytes(current, MOST_BYTES));
      }
      return Fact.known(new Run(command.words(), files));
    } catch (CharacterCodingException e) {
      return Fact.unknown("'" + current + "' is no text in UTF-8");
    } catch (IOException e) {
      return Fact.unknown("'" + current + "' cannot be read: " + IoReason.of(e));
    } catch (IllegalArgumentException e) {
      return Fact.unknown("'" + current + "', " + e.getMessage());
    }
  }

  private static String text(Path file) throws IOException {
    byte[] bytes = SmallFile.bytes(file, MOST_BYTES);
    return StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes)).toString();
  }
}
