package jollycrate.host;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/** Makes stand-ins for other machines; found by {@link java.util.ServiceLoader}. */
public interface StandIns {
  /** Puts into a stand-in's folder what it and {@code ssh} need: keys, and their configuration. */
  void prepare(Path folder, StandIn standIn) throws IOException;

  /** What a Java virtual machine is given to be it; one argument holds {@link Launch#TOKEN}. */
  List<String> arguments(Path folder);
}
