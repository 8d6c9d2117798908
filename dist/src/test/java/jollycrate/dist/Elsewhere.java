package jollycrate.dist;

import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import jollycrate.host.Needs;

/**
 * A network name space with an address of its own, as if it were another machine; root makes it.
 */
final class Elsewhere implements AutoCloseable {
  private static final int SECOND_LAST = 200;

  final String address;
  private final String name = "jolly" + ProcessHandle.current().pid();

  /** Makes it, where that is possible here; else the test is passed over. */
  Elsewhere() throws IOException {
    Needs.here(Files.isExecutable(Path.of("/usr/sbin/nft")), "no nft here");
    Needs.root();
    assumeTrue(runs("ip", "netns", "add", name), "no network name space can be made here");
    String network = "10.231." + ProcessHandle.current().pid() % SECOND_LAST;
    address = network + ".2";
    ends("ip", "link", "add", name, "type", "veth", "peer", "name", "eth0", "netns", name);
    ends("ip", "address", "add", network + ".1/30", "dev", name);
    ends("ip", "link", "set", name, "up");
    there("ip", "address", "add", address + "/30", "dev", "eth0");
    there("ip", "link", "set", "eth0", "up");
    there("ip", "link", "set", "lo", "up");
  }

  /** What goes in front of a command that is to run there. */
  List<String> before() {
    return List.of("ip", "netns", "exec", name);
  }

  /** Lets in what comes for a TCP port, or does with it what a rule of nft(8) says. */
  void rule(int port, String verdict) throws IOException {
    there("nft", "flush", "ruleset");
    there("nft", "add", "table", "inet", "doors");
    there("nft", "add chain inet doors in { type filter hook input priority 0; }");
    there("nft", "add rule inet doors in iifname eth0 tcp dport " + port + " " + verdict);
  }

  private void there(String... command) throws IOException {
    List<String> all = new ArrayList<>(before());
    all.addAll(List.of(command));
    ends(all.toArray(String[]::new));
  }

  private static void ends(String... command) throws IOException {
    if (!runs(command)) {
      throw new IOException(String.join(" ", command));
    }
  }

  private static boolean runs(String... command) throws IOException {
    try {
      Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
      String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
      boolean right = process.waitFor() == 0;
      if (!right) {
        System.err.println(String.join(" ", command) + ": " + said);
      }
      return right;
    } catch (InterruptedException e) {
      throw new IOException(e);
    }
  }

  @Override
  public void close() throws IOException {
    ends("ip", "netns", "delete", name);
  }
}
