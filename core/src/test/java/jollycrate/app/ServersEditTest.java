package jollycrate.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Entries come into servers.toml and go again, and the rest of it stays. */
class ServersEditTest {
  @TempDir Path folder;

  @Test
  void anEntryIsAddedAndTheRestStays() throws IOException {
    Path file = folder.resolve("servers.toml");
    String before = "# ours\n[server.a]\nfolder='x'\nhttp=1\nadmin=2 # no newline";
    Files.writeString(file, before);
    ServerEntry entry =
        new ServerEntry(
            "b",
            Optional.empty(),
            folder.resolve("run/\"b"),
            Optional.empty(),
            false,
            new Ports(
                ServersFile.LOOPBACK, 8080, Optional.empty(), Optional.of(8081), Optional.empty()),
            Jvm.USUAL,
            new ServerVariables(List.of(), Map.of(), folder),
            Optional.empty(),
            Keeping.USUAL,
            Optional.empty(),
            Steering.OURS,
            Optional.empty());
    ServersEdit.add(file, entry);
    assertThat(Files.readString(file)).startsWith(before);
    assertThat(ServersFile.read(file)).contains(entry);
    Files.writeString(file, "[server.a]\nhttp = 70000\n");
    assertThatThrownBy(() -> ServersFile.read(file))
        .hasMessageContaining("servers.toml:1:1: 'server.a.folder' is missing")
        .hasMessageContaining("servers.toml:2:1: 'http' is 70000. Give 1 to 65535");
  }

  @Test
  void anEntryIsTakenOutAndTheRestStaysByteForByte() throws IOException {
    String one = "# ours\n[server.a]\nfolder = \"a\"\nhttp = 1\nadmin = 2\n\n";
    String other =
        "[server.b]\nfolder = \"b\"\nhttp = 3\nadmin = 4\n[server.b.variables]\nX = \"[y\"\n";
    String last = "\n  [ server . c ]\nfolder = \"c\"\nhttp = 5 # five\nadmin = 6";
    Path file = Files.writeString(folder.resolve("servers.toml"), one + other + last);
    ServersEdit.remove(file, "b");
    assertThat(Files.readString(file)).isEqualTo(one + last.substring(1));
    Path inline =
        Files.writeString(
            folder.resolve("inline.toml"),
            "server.a = { folder = \"a\", http = 1, admin = 2 }\n" + other);
    assertThatThrownBy(() -> ServersEdit.remove(inline, "a")).hasMessageContaining("by hand");
  }

  @Test
  void valuesChangeWhereTheyStandAndNowhereElse() throws IOException {
    String text =
        """
        [server.b]
        folder = "b"
        http = 3
        admin = 4
        # ours
        [ server . "a" ]
        folder = 'a'
          http   =  1   # one
        admin = 2
        memory = "1g"

        # the rest
        [server.a.variables]
        http = "9"
        """;
    Path file = Files.writeString(folder.resolve("servers.toml"), text);
    Map<String, String> values = new LinkedHashMap<>();
    values.put("http", "8081");
    values.put("memory", "");
    values.put("address", "::1");
    values.put("java-options", "[\"-Xss2m\"]");
    ServersEdit.Changed changed = ServersEdit.changed(file, "a", values);
    assertThat(changed.text())
        .isEqualTo(
            text.replace("=  1   # one", "=  8081   # one")
                .replace("memory = \"1g\"\n", "address = \"::1\"\njava-options = [\"-Xss2m\"]\n"));
    assertThat(changed.entry().ports().address()).isEqualTo("::1");
    assertThat(Files.readString(file)).isEqualTo(text);
    Files.writeString(file, text.replace("memory = \"1g\"", "env = [\n\"A\"]"));
    assertThatThrownBy(() -> ServersEdit.changed(file, "a", Map.of("env", "B")))
        .hasMessageContaining("'env' is not written on a line of its own");
  }
}
