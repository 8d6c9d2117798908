package jollycrate.memory;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Proxy;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import jollycrate.host.Glance;
import jollycrate.host.Host;
import jollycrate.host.HostFiles;
import jollycrate.host.HostProcesses;
import jollycrate.host.Sight;
import jollycrate.host.Time;

/**
 * A machine in memory as if it were far away: in a look nothing is read twice, and changes that are
 * made together are made late, when something is read or at the end.
 */
final class Far implements Sight {
  private static final Set<String> CHANGES =
      Set.of("put", "copy", "write", "append", "makeFolder", "move", "touch", "delete");

  private final Map<List<Object>, Object> seen = new HashMap<>();
  private final List<Runnable> waiting = new ArrayList<>();
  private boolean looking;
  private boolean gathering;

  /** The same machine. */
  static Host from(Host near) {
    Far far = new Far();
    return new Host(
        near.name(),
        near.here(),
        far.of(HostFiles.class, near.files()),
        far.of(HostProcesses.class, near.processes()),
        far,
        near.environment());
  }

  private <T> T of(Class<T> type, T near) {
    Object proxy =
        Proxy.newProxyInstance(
            Far.class.getClassLoader(),
            new Class<?>[] {type},
            (self, verb, arguments) -> called(near, verb, arguments));
    return type.cast(proxy);
  }

  private Object called(Object near, Method verb, Object[] arguments) throws Throwable {
    boolean changes = CHANGES.contains(verb.getName()) || verb.getName().equals("deleteTree");
    if (changes) {
      seen.clear();
    }
    if (changes && gathering) {
      waiting.add(() -> unchecked(near, verb, arguments));
      return null;
    }
    settle();
    if (changes || !looking || verb.getDeclaringClass() != HostFiles.class) {
      return invoked(near, verb, arguments);
    }
    List<Object> question = List.of(verb, Arrays.asList(arguments));
    if (!seen.containsKey(question)) {
      seen.put(question, invoked(near, verb, arguments));
    }
    return seen.get(question);
  }

  private static Object invoked(Object near, Method verb, Object[] arguments) throws Throwable {
    try {
      return verb.invoke(near, arguments);
    } catch (InvocationTargetException e) {
      throw e.getCause();
    }
  }

  private static void unchecked(Object near, Method verb, Object[] arguments) {
    try {
      invoked(near, verb, arguments);
    } catch (RuntimeException | Error e) {
      throw e;
    } catch (Throwable e) {
      throw new AssertionError(e);
    }
  }

  /** None is made after one that failed. */
  private void settle() {
    List<Runnable> changes = List.copyOf(waiting);
    waiting.clear();
    changes.forEach(Runnable::run);
  }

  @Override
  public <T> T once(Supplier<T> look) {
    boolean outer = looking;
    looking = true;
    try {
      return look.get();
    } finally {
      looking = outer;
      seen.clear();
    }
  }

  @Override
  public void ahead(Glance glance) {}

  @Override
  public void together(Runnable changes) {
    gathering = true;
    try (Settling end = this::end) {
      changes.run();
    }
  }

  private void end() {
    try {
      settle();
    } finally {
      gathering = false;
    }
  }

  /** What failed before stays the reason. */
  private interface Settling extends AutoCloseable {
    @Override
    void close();
  }

  @Override
  public double rate() {
    return 1;
  }

  @Override
  public void pause(Time time, Duration little, List<Path> watched) {
    settle();
    time.pause(little);
  }
}
