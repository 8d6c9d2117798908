package jollycrate.ssh;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import jollycrate.host.HeldLock;
import jollycrate.host.HostException;
import jollycrate.host.LineCutException;
import jollycrate.host.Quote;

/** Locks of another machine: held as long as the line stands. */
record SshLocks(SshSight sight, Wire wire) implements HeldLock.Place {

  @Override
  public HeldLock.Shell start(String script, List<String> arguments) throws IOException {
    String whole = "set -- " + Quote.words(arguments) + "\n" + script;
    sight.mustStand();
    try {
      return wire.connection().program(whole);
    } catch (IOException e) {
      if (wire.stands()) {
        throw e;
      }
      sight.back(new LineCutException(e.getMessage()));
      return wire.connection().program(whole);
    }
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

  /** Only what holds the very file is ended. */
  @Override
  public void end(Path file, long holder) {
    String held = "/proc/" + holder + "/fd/9";
    wire.shell()
        .ask(
            "i=0; while [ "
                + held
                + " -ef "
                + Quote.word(file)
                + " ] && [ $i -lt 50 ]; do kill -9 "
                + holder
                + "; sleep 0.1; i=$((i + 1)); done");
  }

  @Override
  public Optional<HostException> refused(Path file) {
    return Optional.of(wire)
        .filter(line -> !line.stands())
        .map(line -> new LineCutException("while it was locked"));
  }

  @Override
  public void delete(Path file) {
    new SshFiles(sight).delete(file);
  }
}
