package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import jollycrate.file.Digests;
import jollycrate.host.Content;
import jollycrate.host.HostFiles;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Server;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlDocument;

/** Changes inside files of a server, gathered file by file; all else in them stays. */
final class Edits {
  private final HostFiles files;
  private final Server server;
  private final Map<Path, XmlDocument> documents = new LinkedHashMap<>();
  private final Map<Path, List<Splice>> splices = new LinkedHashMap<>();
  private final Map<Path, PickUp> pickUps = new LinkedHashMap<>();

  Edits(HostFiles files, Server server, ServerXml configuration) {
    this.files = files;
    this.server = server;
    documents.put(ServerXml.file(server), configuration.document());
  }

  /**
   * A file as it stands.
   *
   * @throws jollycrate.xml.XmlException when it cannot be read
   */
  XmlDocument document(Path file) {
    return documents.computeIfAbsent(
        file,
        path -> XmlDocument.parse(server.shown(path), files.whole(path, XmlDocument.MOST_BYTES)));
  }

  /** The same of the server's main file. */
  XmlDocument serverXml() {
    return documents.get(ServerXml.file(server));
  }

  /** Changes the server's main file, which a running server reads at its next start. */
  void add(Splice splice) {
    add(ServerXml.file(server), splice, PickUp.RESTART);
  }

  /** Changes a file, of which a running server takes notice in that way. */
  void add(Path file, Splice splice, PickUp pickUp) {
    splices.computeIfAbsent(file, path -> new ArrayList<>()).add(splice);
    pickUps.merge(file, pickUp, (one, other) -> one == PickUp.RESTART ? one : other);
  }

  /** The files as they are to stand: behind a link, the link stays. */
  List<Piece.WholeFile> wanted() {
    return splices.entrySet().stream()
        .map(edited -> wanted(edited.getKey(), edited.getValue()))
        .toList();
  }

  /** Digests of the changed files as they were read, by where they are. */
  Map<Path, String> seen() {
    return splices.keySet().stream()
        .collect(
            Collectors.toMap(files::real, file -> Digests.of(document(file).written().bytes())));
  }

  private Piece.WholeFile wanted(Path file, List<Splice> changes) {
    Path real = files.real(file);
    return new Piece.WholeFile(
        real,
        Content.of(document(file).with(changes).bytes()),
        files.facts(real).access(),
        Part.OWN,
        pickUps.get(file));
  }
}
