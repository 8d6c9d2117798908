package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.InputFormat;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import jollycrate.host.Needs;
import jollycrate.ssh.Sshd;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Another machine is trusted, reached and told of by the built program. */
class HostsIT {
  @TempDir Path folder;

  private Program described(Sshd sshd) throws IOException {
    Path config = sshd.folder.resolve("config");
    Files.writeString(
        folder.resolve("servers.toml"),
        """
        [host.app1]
        ssh = "app1"
        config = "%s"

        [host.app2]
        ssh = "127.0.0.1:%d"
        config = "%s"

        [server.shop]
        host = "app2"
        installation = "/srv/shop"
        folder = "/srv/shop"
        http = 8080
        """
            .formatted(config, Workshop.freePort(), config));
    return new Program(folder);
  }

  @Test
  void isTrustedReachedAndToldOf() throws IOException {
    Needs.here(Sshd.isHere(), "no sshd here");
    try (Sshd sshd = new Sshd(Files.createDirectory(folder.resolve("app1")))) {
      Program program = described(sshd);
      assertThat(program.ends(8, "host", "test", "app1").err()).contains("jolly host trust app1");
      assertThat(program.ends(4, "host", "trust", "app1", "--fingerprint", "SHA256:x").all())
          .contains("another key than SHA256:x", "Nothing was changed");
      assertThat(program.ends(4, "host", "trust", "app1").err()).contains("Nothing was changed");
      assertThat(sshd.folder.resolve("known_hosts")).doesNotExist();
      assertThat(program.ends(0, "host", "trust", "app1", "--yes").out()).contains("Trusted");
      assertThat(program.ends(0, "host", "test", "app1").out())
          .contains("Right: app1 can be worked on")
          .containsPattern("ok +Java +" + Runtime.version().feature())
          .containsPattern("ok +port +" + sshd.port + ", loopback only: ")
          .containsPattern("ok +clock +as here");
      assertThat(program.ends(0, "host", "list").out())
          .containsPattern("app1 +reached ")
          .containsPattern("app2 +not reached ")
          .contains("it refuses connections");
      assertThat(program.ends(8, "deploy", "maven:spokes:none:1:war", "--to", "shop").err())
          .contains("Cannot reach 'app2'");
      assertThat(program.ends(3, "host", "test", "ap1").err()).contains("Did you mean 'app1'?");

      sshd.close();
      sshd.key("host");
      sshd.start();
      assertThat(program.ends(8, "host", "test", "app1").err()).contains("another key than before");
      assertThat(program.ends(4, "host", "trust", "app1").err()).contains("--fingerprint SHA256:");
      for (String line : new String[] {"host list", "host trust app1", "host test app1"}) {
        String told = program.run((line + " --json").split(" ")).out();
        assertThat(DocumentsIT.schema().validate(told, InputFormat.JSON)).as(told).isEmpty();
      }
    }
  }

  @Test
  void theAgentOpensTheDoor() throws IOException {
    Needs.here(Sshd.isHere(), "no sshd here");
    try (Sshd sshd = new Sshd(Files.createDirectory(folder.resolve("app1")))) {
      Program program = described(sshd);
      Path config = sshd.folder.resolve("config");
      Files.writeString(
          config, Files.readString(config).replaceAll(" *Identit(yFile|iesOnly) [^\n]*\n", ""));
      Path socket = folder.resolve("agent");
      String started = program.shell("ssh-agent -a \"$0\"", socket.toString()).out();
      long pid = Long.parseLong(started.replaceAll("(?s).*SSH_AGENT_PID=(\\d+);.*", "$1"));
      try {
        program.inheriting("SSH_AUTH_SOCK", socket.toString());
        program.ends(0, "host", "trust", "app1", "--yes");
        assertThat(program.ends(8, "host", "test", "app1").err()).contains("the agent");
        program.shell("ssh-add -q \"$0\"", sshd.folder.resolve("mine").toString());
        program.ends(0, "host", "test", "app1");
      } finally {
        Yard.kill(pid);
      }
    }
  }
}
