package jollycrate.ssh;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.HostFiles;
import jollycrate.host.HostKey;
import jollycrate.host.HostLine;
import jollycrate.host.HostProcesses;
import jollycrate.host.Identity;
import jollycrate.host.LineCutException;
import jollycrate.host.Needs;
import jollycrate.host.Ran;
import jollycrate.host.Reach;
import jollycrate.host.UnreachableException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Who is let in, by what, and what is said of those who are not; against a real server. */
class LogInTest {
  @TempDir Path place;
  private final SshLines lines = new SshLines();
  private Sshd sshd;

  @BeforeEach
  void start() throws IOException {
    Needs.here(Sshd.isHere(), "no sshd here");
    sshd = new Sshd(place);
  }

  @AfterEach
  void end() {
    if (sshd != null) {
      sshd.close();
    }
  }

  private void trusted() {
    lines.trust(sshd.reach(), lines.key(sshd.reach()));
  }

  private String whoami(Reach reach) {
    try (HostLine line = lines.open(reach)) {
      Ran ran =
          line.host()
              .processes()
              .run(
                  List.of("id", "-un"),
                  Path.of("/"),
                  Map.of("PATH", "/usr/bin:/bin"),
                  "",
                  Duration.ofSeconds(10));
      return ran.output().strip();
    }
  }

  private void refused(Reach reach, String... words) {
    assertThatThrownBy(() -> lines.open(reach))
        .isInstanceOf(UnreachableException.class)
        .hasMessageContainingAll(words);
  }

  @Test
  void aKeyIsTrustedWhenSomebodySaysSoAndAnotherIsNot() throws IOException {
    refused(sshd.reach(), "its key is not known here", "jolly host trust app1");
    assertThat(sshd.known()).doesNotExist();
    Files.writeString(sshd.known(), "# of the team\nother.example ssh-ed25519 AAAA\n");
    HostKey first = lines.key(sshd.reach());
    assertThat(first.known()).isEmpty();
    lines.trust(sshd.reach(), first);
    assertThat(whoami(sshd.reach())).isEqualTo(System.getProperty("user.name"));
    assertThat(lines.key(sshd.reach()).trusted()).isTrue();

    sshd.close();
    sshd.key("host");
    sshd.start();
    HostKey second = lines.key(sshd.reach());
    assertThat(second.known()).contains(first.fingerprint());
    assertThat(second.line()).isEqualTo(3);
    refused(
        sshd.reach(),
        "another key than before",
        first.fingerprint(),
        second.fingerprint(),
        "line 3");
    assertThatThrownBy(() -> lines.trust(sshd.reach(), first)).hasMessageContaining("and not");
    String before = Files.readString(sshd.known());
    lines.trust(sshd.reach(), second);
    assertThat(Files.readString(sshd.known())).startsWith(before);
    assertThat(Files.readAllLines(sshd.known())).hasSize(4);
    assertThat(whoami(sshd.reach())).isEqualTo(System.getProperty("user.name"));
  }

  @Test
  void aSocketThereTellsRefusedFromForbidden() throws IOException {
    trusted();
    InetSocketAddress nobody = new InetSocketAddress("127.0.0.1", 1);
    try (HostLine line = lines.open(sshd.reach())) {
      assertThatThrownBy(() -> line.socket().connect(nobody, 5000))
          .isInstanceOf(ConnectException.class);
      line.socket().connect(new InetSocketAddress("127.0.0.1", sshd.port), 5000);
    }
    sshd.close();
    sshd =
        new Sshd(Files.createDirectory(place.resolve("closed")), "", "", "AllowTcpForwarding no");
    trusted();
    try (HostLine line = lines.open(sshd.reach())) {
      assertThatThrownBy(() -> line.socket().connect(nobody, 5000))
          .isNotInstanceOf(ConnectException.class)
          .hasMessageContaining("AllowTcpForwarding");
      sshd.cut();
      assertThatThrownBy(() -> line.socket().connect(nobody, 5000))
          .isNotInstanceOf(ConnectException.class);
    }
  }

  @Test
  void aSourceThatCannotBeReadCutsNoLine() throws IOException {
    trusted();
    Path source = Files.writeString(place.resolve("source"), "bell");
    try (HostLine line = lines.open(sshd.reach())) {
      HostFiles files = line.host().files();
      Access access = files.facts(source).access();
      Content gone = Content.of(source);
      Files.writeString(source, "be");
      assertThatThrownBy(() -> files.put(place.resolve("copy"), gone, access))
          .isNotInstanceOf(LineCutException.class)
          .hasMessageContaining("the source changed");
      assertThat(files.facts(place.resolve("copy")).exists()).isFalse();
    }
  }

  @Test
  void hashedNamesAreKnown() throws Exception {
    trusted();
    Process hash =
        new ProcessBuilder("ssh-keygen", "-q", "-H", "-f", sshd.known().toString()).start();
    assertThat(hash.waitFor()).isZero();
    assertThat(Files.readString(sshd.known())).startsWith("|1|");
    assertThat(lines.key(sshd.reach()).trusted()).isTrue();
    assertThat(whoami(sshd.reach())).isEqualTo(System.getProperty("user.name"));
  }

  @Test
  void aRevokedKeyIsRefused() throws IOException {
    trusted();
    String line = Files.readString(sshd.known());
    Files.writeString(sshd.known(), "# of the team\n@revoked " + line);
    refused(sshd.reach(), "its key is revoked", sshd.known().toString(), "line 2");
    assertThat(lines.key(sshd.reach()).revoked()).isTrue();
    assertThat(lines.key(sshd.reach()).trusted()).isFalse();
  }

  @Test
  void aConnectionIsKeptForLaterCommandsUnlessSomebodySaysNo() throws IOException {
    trusted();
    String user = System.getProperty("user.name");
    Reach reach = sshd.reach();
    Reach once =
        new Reach(
            reach.name(),
            reach.ssh(),
            reach.config(),
            reach.sudo(),
            Duration.ZERO,
            reach.password(),
            reach.keyPassword());
    assertThat(whoami(once)).isEqualTo(user);
    assertThat(whoami(once)).isEqualTo(user);
    assertThat(logIns()).isEqualTo(2);
    assertThat(whoami(reach)).isEqualTo(user);
    assertThat(whoami(reach)).isEqualTo(user);
    assertThat(logIns()).isEqualTo(3);
  }

  private int logIns() throws IOException {
    return Files.readString(place.resolve("sshd.log")).split("Accepted publickey", -1).length - 1;
  }

  /**
   * Each of its connections carries one shell: what else runs there needs connections of its own.
   */
  @Test
  void aServerThatSharesNoConnectionIsWorkedOn() throws IOException {
    sshd.close();
    sshd = new Sshd(Files.createDirectory(place.resolve("narrow")), "", "", "MaxSessions 1");
    trusted();
    assertThat(whoami(sshd.reach())).isEqualTo(System.getProperty("user.name"));
  }

  @Test
  void whoeverIsNotLetInIsToldWhatWasTried() throws IOException {
    trusted();
    Files.writeString(place.resolve("authorized"), "");
    refused(sshd.reach(), "it does not let", "Tried: " + place.resolve("mine"));
    sshd.close();
    refused(sshd.reach(), "it refuses connections at port " + sshd.port);
    refused(sshd.reach("nobody.invalid"), "no name service knows the name 'nobody.invalid'");
  }

  @Test
  void anEncryptedKeyIsOpenedByItsPassword() throws IOException {
    trusted();
    sshd.key("mine", "-N", "tandem & 'bell'");
    Files.copy(
        place.resolve("mine.pub"),
        place.resolve("authorized"),
        StandardCopyOption.REPLACE_EXISTING);
    refused(sshd.reach(), "an encrypted key that 'key-password' does not open");
    refused(with("chain"), "an encrypted key that 'key-password' does not open");
    assertThat(whoami(with("tandem & 'bell'"))).isEqualTo(System.getProperty("user.name"));
  }

  private Reach with(String keyPassword) {
    Reach reach = sshd.reach();
    return new Reach(
        reach.name(),
        reach.ssh(),
        reach.config(),
        Optional.empty(),
        reach.keep(),
        reach.password(),
        Optional.of(() -> keyPassword));
  }

  @Test
  void aJumpHostAndACommandAreGoneThrough() {
    trusted();
    assertThat(whoami(sshd.reach("behind"))).isEqualTo(System.getProperty("user.name"));
    assertThat(whoami(sshd.reach("piped"))).isEqualTo(System.getProperty("user.name"));
    refused(sshd.reach("far"), "through no-such-hop");
  }

  @Test
  void aJumpHostGetsNoPassword() throws IOException {
    trusted();
    Files.writeString(place.resolve("authorized"), "");
    Reach reach = sshd.reach("behind");
    AtomicInteger asked = new AtomicInteger();
    refused(
        new Reach(
            reach.name(),
            reach.ssh(),
            reach.config(),
            Optional.empty(),
            reach.keep(),
            Optional.of(() -> "bell" + asked.incrementAndGet()),
            Optional.empty()),
        "through app1");
    assertThat(asked).hasValue(0);
  }

  @Test
  void anotherUserIsBecomeWithoutAPasswordOrNotAtAll() {
    Needs.here(Files.isExecutable(Path.of("/usr/bin/sudo")), "no sudo here");
    Needs.root();
    trusted();
    assertThat(whoami(as("nobody"))).isEqualTo("nobody");
    try (HostLine line = lines.open(as("nobody"))) {
      HostFiles files = line.host().files();
      assertThat(files.list(Path.of("/usr"))).contains(Path.of("/usr/bin"));
      Path closed = Path.of("/etc/shadow");
      assertThatThrownBy(() -> files.read(closed, 0, 9)).hasMessageContaining("ermission denied");
      assertThatThrownBy(() -> files.digest(closed)).hasMessageContaining("ermission denied");
      assertThatThrownBy(() -> files.facts(sshd.known())).hasMessageContaining("ermission denied");
    }
    refused(as("no-such-user"), "sudo does not let root become no-such-user", "NOPASSWD");
  }

  /** Its program is another user's, who could have put anything there. */
  @Test
  void aProcessIsAskedAsItsOwner() throws IOException {
    Needs.root();
    Path tools = Files.createDirectory(place.resolve("tools"));
    Path who = Files.writeString(tools.resolve("who"), "");
    assertThat(place.toFile().setExecutable(true, false)).isTrue();
    assertThat(tools.toFile().setExecutable(true, false)).isTrue();
    assertThat(who.toFile().setWritable(true, false)).isTrue();
    Path timeout = tools.resolve("timeout");
    Files.writeString(timeout, "#!/bin/sh\nid -un >> " + who + "\nexec /usr/bin/timeout \"$@\"\n");
    assertThat(timeout.toFile().setExecutable(true, false)).isTrue();
    assertThat(timeout.toFile().setReadable(true, false)).isTrue();
    sshd.close();
    sshd =
        new Sshd(
            Files.createDirectory(place.resolve("asking")), "PATH=" + tools + ":/usr/bin:/bin", "");
    trusted();
    Process nobodys =
        new ProcessBuilder("setpriv", "--reuid=nobody", "--clear-groups", "sleep", "60.25").start();
    try (HostLine line = lines.open(sshd.reach())) {
      HostProcesses processes = line.host().processes();
      Identity process = processes.programs("60.25").orElse(List.of()).get(0).identity();
      processes.beans(process, List.of());
      assertThat(Files.readString(who)).isEqualTo("nobody\n");
    } finally {
      nobodys.destroy();
    }
  }

  private Reach as(String user) {
    Reach reach = sshd.reach();
    return new Reach(
        reach.name(),
        reach.ssh(),
        reach.config(),
        Optional.of(user),
        reach.keep(),
        reach.password(),
        reach.keyPassword());
  }
}
