package jollycrate.host;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.function.Supplier;

/** How a host is looked at: what belongs together is asked for in one turn, however far it is. */
public interface Sight {
  /** Of a host so near that nothing needs to be remembered. */
  Sight NEAR =
      new Sight() {
        @Override
        public <T> T once(Supplier<T> look) {
          return look.get();
        }

        @Override
        public void ahead(Glance glance) {}

        @Override
        public void together(Runnable changes) {
          changes.run();
        }

        @Override
        public double rate() {
          return Double.POSITIVE_INFINITY;
        }

        @Override
        public void pause(Time time, Duration little, List<Path> watched) {
          time.pause(little);
        }
      };

  /**
   * A look. Within it nothing needs to be read twice, until something is changed through this host:
   * what is told may be as old as the look. So nobody waits within one.
   */
  <T> T once(Supplier<T> look);

  /** Tells what the look that is under way is going to read. */
  void ahead(Glance glance);

  /**
   * Changes that need not be waited for one by one. Each is made after the one before it, and none
   * after one that failed; what failed is told when something is read, and at the latest at the
   * end. Only then they are durable.
   */
  void together(Runnable changes);

  /** How much can be sent to it in a second now, in bytes, as measured by sending a little. */
  double rate();

  /**
   * What is to be done when the connection to it was cut and taken up again, before anything else
   * is done there.
   *
   * @return takes it off again
   */
  default Runnable whenBack(Runnable again) {
    return () -> {};
  }

  /**
   * Lets time go by before the next look.
   *
   * @param little time
   * @param watched files that need not be looked at before one of them changes, for a moment
   */
  void pause(Time time, Duration little, List<Path> watched);
}
