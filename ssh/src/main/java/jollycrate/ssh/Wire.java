package jollycrate.ssh;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import jollycrate.file.Shipped;
import jollycrate.host.LineCutException;
import jollycrate.host.Quote;
import jollycrate.host.Time;
import jollycrate.host.UnreachableException;

/**
 * The connection to another machine with the shell that answers there. One that was cut is taken up
 * again, unless that takes too long.
 */
final class Wire implements AutoCloseable {
  private static final String PROGRAM = "answer.sh";
  private static final Duration BACK_WITHIN = Duration.ofSeconds(20);
  private static final Duration TRY_AGAIN = Duration.ofMillis(250);

  private final List<Runnable> whenBack = new CopyOnWriteArrayList<>();
  private final Connection connection;
  private RemoteProgram program;
  private Shell shell;
  private long turnsBefore;
  private boolean closed;

  /** Opens it. */
  Wire(Connection connection) throws IOException {
    this.connection = connection;
    open();
  }

  private void open() throws IOException {
    RemoteProgram started = connection.logIn(Shipped.text(Wire.class, PROGRAM));
    try {
      shell = new Shell(started.in(), started.out());
      program = started;
    } catch (IOException e) {
      started.end();
      throw e;
    }
  }

  /** What else runs on it. */
  Connection connection() {
    return connection;
  }

  /** The shell there. */
  synchronized Shell shell() {
    return shell;
  }

  /** How many requests were answered. */
  synchronized long turns() {
    return turnsBefore + shell.turns();
  }

  /**
   * What is to be done when the connection was taken up again, before anything else there.
   *
   * @return takes it off again
   */
  Runnable whenBack(Runnable again) {
    whenBack.add(again);
    return () -> whenBack.remove(again);
  }

  /** Whether it is not known to be cut. */
  synchronized boolean stands() {
    return program.runs() && !shell.isCut();
  }

  /**
   * Nothing while it stands; else it is taken up again.
   *
   * @throws LineCutException when that fails
   */
  void mustStand() {
    if (!stands()) {
      back(new LineCutException("before"));
    }
  }

  /**
   * Takes it up again. What the old shell was doing there has ended by then.
   *
   * @throws LineCutException the one that is given, when it is not back in time
   */
  synchronized void back(LineCutException cut) {
    Instant until = Time.system().now().plus(BACK_WITHIN);
    Shell old = shell;
    program.end();
    while (closed || !opened()) {
      if (closed || Time.system().now().isAfter(until)) {
        throw cut;
      }
      Time.system().pause(TRY_AGAIN);
    }
    turnsBefore += old.turns();
    shell.ask("leave " + old.pid() + " " + Quote.word(old.born()));
    whenBack.forEach(Runnable::run);
  }

  private boolean opened() {
    try {
      open();
      return true;
    } catch (UnreachableException | IOException notYet) {
      return false;
    }
  }

  @Override
  public synchronized void close() {
    closed = true;
    program.end();
  }
}
