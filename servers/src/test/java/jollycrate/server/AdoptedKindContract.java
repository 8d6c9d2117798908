package jollycrate.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.host.Access;
import jollycrate.host.Content;

/** The same of a server whose files are as people left them. */
public abstract class AdoptedKindContract extends ServerKindContract {
  @Override
  protected final Optional<Integer> admin() {
    return Optional.empty();
  }

  @Override
  protected final String handed() {
    return "";
  }

  /** A file as people have it there. */
  protected final Piece theirs(String name, String text, Access access) {
    Path file = server().folder().resolve(name);
    return new Piece.WholeFile(file, Content.of(text), access, Part.OWN, PickUp.RESTART);
  }

  /** A folder of theirs. */
  protected final Piece theirFolder(String name, Access access) {
    return new Piece.Folder(server().folder().resolve(name), access);
  }

  /** Rewrites one of its files. */
  protected final void edit(String name, String from, String to) throws IOException {
    Path file = server().folder().resolve(name);
    String text = Files.readString(file);
    assertThat(text).contains(from);
    Files.writeString(file, text.replace(from, to));
  }

  /** The variables that its process sees. */
  protected final Map<String, String> environment() {
    return kind().processes().launch(stock()).environment();
  }

  /** The command line that starts it. */
  protected final List<String> command() {
    return kind().processes().launch(stock()).command();
  }
}
