package jollycrate.host;

import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/** Locks of this machine. */
final class LocalHold implements HeldLock.Place {

  @Override
  public HeldLock.Shell start(String script, List<String> arguments) throws IOException {
    List<String> command = new ArrayList<>(List.of("/bin/sh", "-c", script, "jolly-lock"));
    command.addAll(arguments);
    ProcessBuilder builder = new ProcessBuilder(command);
    builder.environment().clear();
    builder.environment().putAll(LinuxProcesses.PROGRAMS);
    return new Child(builder.start());
  }

  @Override
  public String key(Path file) {
    try {
      Map<String, Object> found =
          Files.readAttributes(file, "unix:dev,ino", LinkOption.NOFOLLOW_LINKS);
      return found.get("dev") + ":" + found.get("ino");
    } catch (NoSuchFileException e) {
      return "";
    } catch (IOException e) {
      throw HostException.cannot("look at", file, e);
    }
  }

  @Override
  public Optional<HostException> refused(Path file) {
    return Files.isWritable(file.getParent())
        ? Optional.empty()
        : Optional.of(
            HostException.cannot("lock", file, new AccessDeniedException(file.toString())));
  }

  @Override
  public void delete(Path file) {
    try {
      Files.delete(file);
    } catch (IOException e) {
      throw HostException.cannot("delete", file, e);
    }
  }

  private record Child(Process process) implements HeldLock.Shell {
    private static final long ENDS_WITHIN_SECONDS = 5;

    @Override
    public void end() {
      try {
        if (!process.waitFor(ENDS_WITHIN_SECONDS, TimeUnit.SECONDS)) {
          process.destroyForcibly();
        }
      } catch (InterruptedException e) {
        process.destroyForcibly();
        Thread.currentThread().interrupt();
      }
    }
  }
}
