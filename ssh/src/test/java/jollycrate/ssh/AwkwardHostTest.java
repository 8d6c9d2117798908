package jollycrate.ssh;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import jollycrate.host.Needs;

/**
 * The same with busybox for tools, and a log-in shell that greets, lets nobody else read and speaks
 * another language.
 */
class AwkwardHostTest extends SshHostTest {
  private static final Path BUSYBOX = Path.of("/usr/bin/busybox");

  @Override
  Sshd sshd(Path place) throws IOException {
    Path busybox = Files.exists(BUSYBOX) ? BUSYBOX : Path.of("/bin/busybox");
    Needs.here(Files.exists(busybox), "no busybox here");
    Path tools = Files.createDirectory(place.resolve("tools"));
    Process list = new ProcessBuilder(busybox.toString(), "--list").start();
    for (String tool : new String(list.getInputStream().readAllBytes()).split("\n")) {
      Files.createSymbolicLink(tools.resolve(tool), busybox);
    }
    return new Sshd(
        place,
        "PATH=" + tools + " LANG=de_DE.UTF-8 LC_ALL=fr_FR.UTF-8",
        "echo 'Welcome to the workshop'; echo 'Bell 7' >&2; umask 077");
  }
}
