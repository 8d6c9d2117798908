package jollycrate.delivery;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.foresee.Finding;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;
import jollycrate.server.Piece;
import jollycrate.stock.RecordsException;

/**
 * The description of a server on another machine as it is to stand beside the tool. It is no step
 * there, so it is written once the change is proven.
 *
 * @param here files of the machine that the tool runs on
 * @param before digest of what the new text was made of
 */
public record DescribedBeside(HostFiles here, Piece.WholeFile file, String before) {
  /** Whether another text is to stand there. */
  boolean differs() {
    return !before.equals(file.content().digest());
  }

  /** What is said beforehand. */
  List<Finding> findings() {
    String name = file.path().getFileName().toString();
    List<Finding> findings = new ArrayList<>();
    if (differs()) {
      findings.add(Finding.note(name, "it is here, and written once the change is proven there"));
    }
    if (differs() && !here.writable(file.path().getParent())) {
      findings.add(
          Finding.blocker(
              name,
              "it cannot be written",
              file.path().toString(),
              "Fix the rights of its folder, or its disk"));
    }
    return findings;
  }

  /**
   * Writes it.
   *
   * @throws RecordsException when it cannot be written, or is another one by now
   */
  void write() {
    if (differs()) {
      whyNot()
          .ifPresent(
              why -> {
                throw new RecordsException(
                    "The server is changed, but "
                        + file.path()
                        + " does not say so: "
                        + why
                        + ". Do the same again: nothing but that file will be changed");
              });
    }
  }

  private Optional<String> whyNot() {
    try {
      if (!here.digest(file.path()).equals(before)) {
        return Optional.of("somebody changed it meanwhile");
      }
      here.put(file.path(), file.content(), file.access());
      return Optional.empty();
    } catch (HostException e) {
      return Optional.of(e.getMessage());
    }
  }
}
