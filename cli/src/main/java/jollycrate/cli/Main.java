package jollycrate.cli;

import java.util.concurrent.CountDownLatch;
import jollycrate.app.Setting;
import jollycrate.cli.output.ExitCode;
import jollycrate.watch.Interrupts;

/** The program. */
public final class Main {
  private Main() {}

  /** Runs one command and ends the process with its exit code. */
  public static void main(String[] args) {
    Interrupts interrupts = new Interrupts();
    Jolly jolly =
        new Jolly(System.out, System.err, Setting.ofThisProcess(), System::getenv, interrupts);
    CountDownLatch ended = new CountDownLatch(1);
    int[] code = new int[1];
    Thread hook = new Thread(() -> endOrderly(interrupts, ended, code));
    Runtime.getRuntime().addShutdownHook(hook);
    code[0] = ExitCode.INTERNAL_ERROR.code();
    try {
      code[0] = jolly.run(args);
    } finally {
      ended.countDown();
    }
    System.exit(code[0]);
  }

  /** A signal only asks; the thread that carries out also takes back, and its code is the end's. */
  private static void endOrderly(Interrupts interrupts, CountDownLatch ended, int[] code) {
    boolean signalled = ended.getCount() > 0;
    interrupts.ask();
    if (signalled && interrupts.mayEndAtOnce()) {
      Runtime.getRuntime().halt(ExitCode.INTERRUPTED.code());
    }
    try {
      ended.await();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    if (signalled) {
      System.out.flush();
      System.err.flush();
      Runtime.getRuntime().halt(code[0]);
    }
  }
}
