package jollycrate.pack;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.Map;
import java.util.Optional;
import java.util.jar.Attributes;
import java.util.jar.Manifest;
import jollycrate.file.IoReason;

/** The manifest of an archive (JAR specification): the project's own, with what is needed added. */
final class Manifests {
  static final String NAME = "META-INF/MANIFEST.MF";

  private Manifests() {}

  /**
   * Takes the project's own manifest out of the contents and puts the finished one first.
   *
   * @param needed attributes that the shape sets, over the project's own
   */
  static Entry finished(Contents contents, PackRequest request, Map<String, String> needed)
      throws IOException {
    Entry own = contents.entries().remove(NAME);
    if (own != null && needed.isEmpty()) {
      return new Entry(NAME, own.source(), "manifest", false);
    }
    Manifest manifest = own == null ? new Manifest() : read(own);
    Attributes main = manifest.getMainAttributes();
    main.putIfAbsent(Attributes.Name.MANIFEST_VERSION, "1.0");
    main.putIfAbsent(Attributes.Name.IMPLEMENTATION_TITLE, request.name());
    main.putIfAbsent(Attributes.Name.IMPLEMENTATION_VERSION, request.version());
    needed.forEach(main::putValue);
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    manifest.write(bytes);
    return new Entry(NAME, new Source.OfBytes(bytes.toByteArray(), NAME), "manifest", false);
  }

  private static Manifest read(Entry own) throws IOException {
    try (InputStream in = own.source().open()) {
      return new Manifest(in);
    } catch (IOException e) {
      throw new PackException(
          "Cannot read the manifest '" + own.source().place() + "': " + IoReason.of(e));
    }
  }

  /** The class that the project's own manifest starts, when it names one. */
  static Optional<String> mainClass(Contents contents) throws IOException {
    Entry own = contents.entries().get(NAME);
    return own == null
        ? Optional.empty()
        : Optional.ofNullable(read(own).getMainAttributes().getValue(Attributes.Name.MAIN_CLASS));
  }
}
