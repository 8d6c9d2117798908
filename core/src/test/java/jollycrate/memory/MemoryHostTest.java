package jollycrate.memory;

import java.nio.file.Path;
import jollycrate.host.HostFiles;
import jollycrate.host.HostProcesses;
import jollycrate.host.HostProcessesContract;
import org.junit.jupiter.api.BeforeEach;

/** The machine in memory keeps to the contract of the real one. */
class MemoryHostTest implements HostProcessesContract {
  private final MemoryHost host = new MemoryHost();

  @BeforeEach
  void folderIsThere() {
    host.quietFolder(folder());
  }

  @Override
  public HostFiles files() {
    return host;
  }

  @Override
  public HostProcesses processes() {
    return host;
  }

  @Override
  public Path folder() {
    return Path.of("/folder");
  }
}
