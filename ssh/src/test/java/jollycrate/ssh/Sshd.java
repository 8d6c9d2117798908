package jollycrate.ssh;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;
import jollycrate.host.Reach;

/**
 * A real OpenSSH server for whoever runs the tests, on loopback or elsewhere; closing it ends it.
 */
public final class Sshd implements AutoCloseable {
  private static final Path PROGRAM = Path.of("/usr/sbin/sshd");
  private static final long LOOK_NANOS = 5_000_000;
  private static final long LIMIT_NANOS = 10_000_000_000L;

  /** Where its files are: {@code config} for clients, {@code mine} their key. */
  public final Path folder;

  /** At its address. */
  public final int port;

  private final List<String> before;
  private final String address;

  private final String environment;
  private final String settings;
  private Process process;

  /** In a folder of its own. */
  public Sshd(Path folder) throws IOException {
    this(folder, "", "");
  }

  /**
   * At an address that is not here, as it were.
   *
   * @param before goes in front of its command line
   */
  public Sshd(Path folder, String address, List<String> before) throws IOException {
    this(folder, address, before, "", "");
  }

  /**
   * The same.
   *
   * @param environment of whoever logs in, beside his home
   * @param greeting what his shell does first
   * @param settings further ones of sshd_config(5)
   */
  Sshd(Path folder, String environment, String greeting, String... settings) throws IOException {
    this(folder, "127.0.0.1", List.of(), environment, greeting, settings);
  }

  private Sshd(
      Path folder,
      String address,
      List<String> before,
      String environment,
      String greeting,
      String... settings)
      throws IOException {
    this.folder = folder;
    this.address = address;
    this.before = before;
    this.environment = environment;
    this.settings = String.join("\n", settings);
    Files.writeString(
        Files.createDirectories(folder.resolve("home")).resolve(".bashrc"), greeting + "\n");
    try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      this.port = free.getLocalPort();
    }
    key("host");
    key("mine");
    Files.copy(folder.resolve("mine.pub"), folder.resolve("authorized"));
    Path config = folder.resolve("config");
    Files.writeString(
        config,
        described("app1", "")
            + described("behind", "ProxyJump app1")
            + described("far", "ProxyJump no-such-hop,app1")
            + described("piped", "ProxyCommand ssh -F " + config + " -W %h:%p app1"));
    start();
  }

  private String described(String alias, String more) {
    return """
        Host %s
          HostName %s
          Port %d
          IdentityFile %s
          IdentitiesOnly yes
          UserKnownHostsFile %s
          GlobalKnownHostsFile /dev/null
          %s
        """
        .formatted(alias, address, port, folder.resolve("mine"), known(), more);
  }

  /** Whether there is one here. */
  public static boolean isHere() {
    return Files.isExecutable(PROGRAM);
  }

  /** Where known keys are kept. */
  Path known() {
    return folder.resolve("known_hosts");
  }

  /** Makes a key pair; one of that name that stands there goes. */
  public void key(String name, String... more) throws IOException {
    Files.deleteIfExists(folder.resolve(name));
    Files.deleteIfExists(folder.resolve(name + ".pub"));
    List<String> command =
        new ArrayList<>(
            List.of("ssh-keygen", "-q", "-t", "ed25519", "-f", folder.resolve(name).toString()));
    command.addAll(more.length == 0 ? List.of("-N", "") : List.of(more));
    end(new ProcessBuilder(command).start());
  }

  private static void end(Process process) throws IOException {
    try {
      if (process.waitFor() != 0) {
        throw new IOException(new String(process.getErrorStream().readAllBytes()));
      }
    } catch (InterruptedException e) {
      throw new IOException(e);
    }
  }

  /** Starts it, when it does not run. */
  public void start() throws IOException {
    if (Files.notExists(Path.of("/run/sshd")) && Files.isWritable(Path.of("/run"))) {
      Files.createDirectory(Path.of("/run/sshd"));
    }
    Files.writeString(
        folder.resolve("sshd_config"),
        """
        Port %d
        ListenAddress %s
        HostKey %s
        PidFile none
        AuthorizedKeysFile %s
        PasswordAuthentication yes
        KbdInteractiveAuthentication no
        UsePAM no
        StrictModes no
        PermitRootLogin yes
        KexAlgorithms curve25519-sha256
        SetEnv HOME=%s %s
        %s
        """
            .formatted(
                port,
                address,
                folder.resolve("host"),
                folder.resolve("authorized"),
                folder.resolve("home"),
                environment,
                settings));
    List<String> command = new ArrayList<>(before);
    command.addAll(
        List.of(PROGRAM.toString(), "-D", "-e", "-f", folder.resolve("sshd_config").toString()));
    process =
        new ProcessBuilder(command)
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("sshd.log").toFile())
            .start();
    long until = System.nanoTime() + LIMIT_NANOS;
    while (!answers()) {
      if (System.nanoTime() > until || !process.isAlive()) {
        throw new IOException(Files.readString(folder.resolve("sshd.log")));
      }
      LockSupport.parkNanos(LOOK_NANOS);
    }
  }

  private boolean answers() {
    try (Socket socket = new Socket()) {
      socket.connect(new InetSocketAddress(address, port));
      return true;
    } catch (IOException notYet) {
      return false;
    }
  }

  /** Cuts every connection; it takes new ones. */
  public void cut() {
    process.descendants().forEach(ProcessHandle::destroyForcibly);
  }

  /** How it is reached. */
  Reach reach() {
    return reach("app1");
  }

  /** The same by another target or alias. */
  Reach reach(String ssh) {
    return new Reach(
        "app1",
        ssh,
        Optional.of(folder.resolve("config")),
        Optional.empty(),
        Duration.ofMinutes(1),
        Optional.empty(),
        Optional.empty());
  }

  /** Ends it, with everything that it started for those who logged in. */
  @Override
  public void close() {
    List<ProcessHandle> all = new ArrayList<>(process.descendants().toList());
    all.add(process.toHandle());
    all.forEach(ProcessHandle::destroyForcibly);
    all.forEach(one -> one.onExit().join());
  }
}
