package jollycrate.ssh;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import jollycrate.host.HeldLock;
import jollycrate.host.HostException;

/** Locks of another machine: held as long as the line stands. */
record SshLocks(SshSight sight, Connection connection) implements HeldLock.Place {

  @Override
  public HeldLock.Shell start(String script, List<String> arguments) throws IOException {
    return connection.program("set -- " + Quote.words(arguments) + "\n" + script);
  }

  @Override
  public String key(Path file) {
    Shell.Reply reply = sight.read("stat -c %d:%i " + Quote.word(file));
    return reply.exit() == 0 ? reply.text().strip() : "";
  }

  @Override
  public void mustBe(
      Path file, String key, long holder, Supplier<? extends RuntimeException> otherwise) {
    String same = "[ \"$(stat -c %d:%i " + Quote.word(file) + ")\" = '" + key + "' ]";
    sight.change(
        same + " && kill -0 " + holder,
        new byte[0],
        reply -> {
          if (reply.exit() != 0) {
            throw otherwise.get();
          }
        });
  }

  @Override
  public Optional<HostException> refused(Path file) {
    return Optional.empty();
  }

  @Override
  public void delete(Path file) {
    new SshFiles(sight).delete(file);
  }
}
