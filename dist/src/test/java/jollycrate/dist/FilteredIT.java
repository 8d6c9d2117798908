package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import jollycrate.host.Needs;
import jollycrate.ssh.Sshd;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What the rules of a machine keep out is not held against the program behind them. */
class FilteredIT {
  @TempDir Path folder;

  private Elsewhere elsewhere;
  private Sshd sshd;
  private OwnTomcat own;
  private Program program;

  @BeforeEach
  void begin() throws IOException {
    Needs.here(Sshd.isHere(), "no sshd here");
    elsewhere = new Elsewhere();
    sshd =
        new Sshd(
            Files.createDirectory(folder.resolve("ssh")), elsewhere.address, elsewhere.before());
    own = new OwnTomcat(Line.TEN, folder);
    program = own.behind(sshd, folder.resolve("desk"));
  }

  @AfterEach
  void end() throws IOException {
    if (own != null) {
      own.close();
    }
    if (sshd != null) {
      sshd.close();
    }
    if (elsewhere != null) {
      elsewhere.close();
    }
  }

  private String checked(int exit) {
    return program.ends(exit, "check", "bell", "--on", "shop").all();
  }

  @Test
  void dropRejectAndAcceptAreThreeStories() throws IOException {
    Path war = Wars.empty(folder).entry("index.html", "ring").write("bell.war");
    assertThat(program.ends(0, "deploy", war.toString(), "--undescribed", "--to", "shop").out())
        .contains("http://" + elsewhere.address + ":" + own.http + "/bell");
    elsewhere.rule(own.http, "drop");
    assertThat(checked(8))
        .contains("port " + own.http + " is filtered on the way", "Open TCP port " + own.http);
    assertThat(program.ends(0, "server", "test", "shop").out())
        .containsPattern("doubt +from here +port " + own.http + " is filtered on the way");
    elsewhere.rule(own.http, "reject with tcp reset");
    assertThat(checked(8)).contains("port " + own.http + " is rejected on the way");
    elsewhere.rule(own.http, "reject with icmpx type admin-prohibited");
    assertThat(checked(8)).contains("port " + own.http + " is rejected on the way");
    elsewhere.rule(own.http, "accept");
    assertThat(checked(0)).contains("Passed");
    program.ends(0, "undeploy", "bell", "--from", "shop");
    program.ends(0, "server", "stop", "shop");
  }
}
