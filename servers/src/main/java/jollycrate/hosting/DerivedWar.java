package jollycrate.hosting;

import java.io.IOException;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.DerivedArchive;
import jollycrate.artifact.ZipArchive;
import jollycrate.artifact.ZipMember;
import jollycrate.file.Digests;
import jollycrate.host.Content;
import jollycrate.host.HostException;
import jollycrate.xml.XmlDocument;

/** An artifact that carries what its server wants to find inside it. */
public final class DerivedWar {
  /** Made again for every look at a server, and read whole for its digest. */
  private static final Map<String, Content> MADE = new ConcurrentHashMap<>();

  private static final int MOST_MADE = 16;

  private final Artifact artifact;
  private final Map<String, byte[]> entries = new TreeMap<>();

  /** Of an artifact. */
  public DerivedWar(Artifact artifact) {
    this.artifact = artifact;
  }

  /** Whether something stands at a path inside already. */
  public boolean has(String path) {
    try (ZipArchive archive = ZipArchive.open(artifact.file())) {
      return archive.member(path).isPresent();
    } catch (IOException e) {
      throw HostException.cannot("read", artifact.file(), e);
    }
  }

  /** The XML text that stands at a path inside already. */
  public Optional<byte[]> text(String path) {
    try (ZipArchive archive = ZipArchive.open(artifact.file())) {
      Optional<ZipMember> member = archive.member(path);
      return member.isPresent()
          ? Optional.of(archive.read(member.get(), XmlDocument.MOST_BYTES))
          : Optional.empty();
    } catch (IOException e) {
      throw HostException.cannot("read", artifact.file(), e);
    }
  }

  /** Puts in a text, or in place of what stands there. */
  public void put(String path, byte[] text) {
    entries.put(path, text);
  }

  /** Whether nothing was put in. */
  public boolean isAsItWas() {
    return entries.isEmpty();
  }

  /** The whole. */
  public Content content() {
    String inside =
        entries.entrySet().stream()
            .map(entry -> entry.getKey() + " " + Digests.of(entry.getValue()))
            .collect(Collectors.joining("\n"));
    if (MADE.size() >= MOST_MADE) {
      MADE.clear();
    }
    String whole = artifact.digest() + " " + artifact.file() + "\n" + inside;
    return MADE.computeIfAbsent(whole, same -> made());
  }

  private Content made() {
    try {
      return Content.of(DerivedArchive.of(artifact.file(), entries));
    } catch (IOException e) {
      throw HostException.cannot("put descriptors into", artifact.file(), e);
    }
  }
}
