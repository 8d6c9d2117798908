package jollycrate.host;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** That of this machine, as it is at the moment of asking. */
final class LocalProc implements Proc {
  private static final Path PROC = Path.of("/proc");

  @Override
  public Optional<String> text(String name) {
    Path file = PROC.resolve(name);
    try {
      return Optional.of(new String(Files.readAllBytes(file), StandardCharsets.UTF_8));
    } catch (NoSuchFileException e) {
      return Optional.empty();
    } catch (IOException e) {
      return unlessEnded(file, Optional.empty());
    }
  }

  @Override
  public String target(String name) {
    Path link = PROC.resolve(name);
    try {
      return Files.readSymbolicLink(link).toString();
    } catch (NoSuchFileException | NotDirectoryException e) {
      return "";
    } catch (IOException e) {
      return unlessEnded(link, "");
    }
  }

  @Override
  public List<String> children(String name) {
    Path folder = PROC.resolve(name);
    try (Stream<Path> children = Files.list(folder)) {
      return children.map(child -> child.getFileName().toString()).toList();
    } catch (NoSuchFileException | NotDirectoryException e) {
      return List.of();
    } catch (IOException | UncheckedIOException e) {
      return unlessEnded(folder, List.of());
    }
  }

  /** A process may end between the opening of one of its files and the reading. */
  private static <T> T unlessEnded(Path file, T nothing) {
    Path process = file.subpath(0, Math.min(2, file.getNameCount()));
    if (Files.notExists(Path.of("/").resolve(process))) {
      return nothing;
    }
    throw new Unreadable(file.toString());
  }
}
