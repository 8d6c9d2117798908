package jollycrate.ssh;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Collections;
import jollycrate.host.HostFiles;
import jollycrate.host.HostLine;
import jollycrate.host.HostProcesses;
import jollycrate.host.RealHostContract;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;

/** A machine over SSH keeps what every host does. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class SshHostTest implements RealHostContract {
  private Sshd sshd;
  private HostLine line;

  @TempDir Path folder;

  /** The machine to log in to. */
  Sshd sshd(Path place) throws IOException {
    return new Sshd(place);
  }

  @BeforeAll
  void connect(@TempDir Path place) throws IOException {
    assumeTrue(Sshd.isHere());
    sshd = sshd(place);
    SshLines lines = new SshLines();
    lines.trust(sshd.reach(), lines.key(sshd.reach()));
    line = lines.open(sshd.reach());
  }

  @AfterAll
  void end() {
    if (line != null) {
      line.close();
    }
    if (sshd != null) {
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
    assertThat(files().facts(Collections.nCopies(200, folder))).hasSize(200);
    assertThat(line.turns() - before).isEqualTo(1);
  }
}
