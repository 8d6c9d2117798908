package jollycrate.ssh;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import jollycrate.file.Shipped;
import jollycrate.host.LineCutException;
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

  /** Logs in. */
  @FunctionalInterface
  interface LogIn {
    /** A connection on which nothing runs yet. */
    Connection open();
  }

  private final LogIn logIn;
  private final List<Runnable> whenBack = new CopyOnWriteArrayList<>();
  private volatile Connection connection;
  private Shell shell;
  private long turnsBefore;
  private boolean closed;

  /** Opens it. */
  Wire(LogIn logIn) throws IOException {
    this.logIn = logIn;
    open();
  }

  private void open() throws IOException {
    Connection next = logIn.open();
    try {
      Connection.Program started = next.program(Shipped.text(Wire.class, PROGRAM));
      Shell answering = new Shell(started.in(), started.out());
      connection = next;
      shell = answering;
    } catch (IOException e) {
      next.session().disconnect();
      throw e;
    }
  }

  /** The connection as it stands, or stood last. */
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
  boolean stands() {
    return connection.session().isConnected() && !shell().isCut();
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
    connection.session().disconnect();
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
    connection.session().disconnect();
  }
}
