package jollycrate.ssh;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Path;
import jollycrate.host.HostFiles;
import jollycrate.host.HostLine;
import jollycrate.host.HostProcesses;
import jollycrate.host.RealHostContract;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A machine over SSH keeps what every host does. */
class SshHostTest implements RealHostContract {
  @TempDir static Path place;
  private static Sshd sshd;
  private static HostLine line;

  @TempDir Path folder;

  @BeforeAll
  static void connect() throws IOException {
    assumeTrue(Sshd.isHere());
    sshd = new Sshd(place);
    SshLines lines = new SshLines();
    lines.trust(sshd.reach(), lines.key(sshd.reach()));
    line = lines.open(sshd.reach());
  }

  @AfterAll
  static void end() {
    if (sshd != null) {
      line.close();
      sshd.close();
    }
  }

  @Override
  public HostFiles files() {
    return line.host().files();
  }

  @Override
  public HostProcesses processes() {
    return line.host().processes();
  }

  @Override
  public Path folder() {
    return folder;
  }

  @Test
  void manyFactsAreOneTurn() {
    long before = line.turns();
    files().facts(java.util.Collections.nCopies(200, folder));
    assertThat(line.turns() - before).isEqualTo(1);
  }
}
