package jollycrate.ssh;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.host.HeldLock;
import jollycrate.host.HostException;

/** Locks of another machine: held as long as the line stands. */
record SshLocks(Shell shell, Connection connection) implements HeldLock.Place {

  @Override
  public HeldLock.Shell start(String script, List<String> arguments) throws IOException {
    return connection.program("set -- " + Quote.words(arguments) + "\n" + script);
  }

  @Override
  public String key(Path file) {
    Shell.Reply reply = shell.ask("stat -c %d:%i " + Quote.word(file));
    return reply.exit() == 0 ? reply.text().strip() : "";
  }

  @Override
  public Optional<HostException> refused(Path file) {
    return Optional.empty();
  }

  @Override
  public void delete(Path file) {
    new SshFiles(shell).delete(file);
  }
}
