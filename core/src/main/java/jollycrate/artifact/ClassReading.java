package jollycrate.artifact;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ConcurrentSkipListMap;
import java.util.concurrent.Executor;
import java.util.concurrent.Executors;
import java.util.jar.Attributes;
import java.util.jar.Manifest;
import jollycrate.file.IoReason;
import jollycrate.xml.XmlDocument;

/** Reads the classes of an artifact and looks into its libraries, on several threads. */
final class ClassReading {
  private static final int MOST_CLASS_BYTES = 16 << 20;
  private static final int MOST_LIBRARY_BYTES = 512 << 20;
  private static final int CHUNK = 512;
  private static final Executor READERS =
      Executors.newFixedThreadPool(
          Runtime.getRuntime().availableProcessors(),
          work -> {
            Thread thread = new Thread(work, "inspect");
            thread.setDaemon(true);
            return thread;
          });

  private final ZipArchive archive;
  private final boolean programs;
  private final ConcurrentLinkedQueue<Fragment> fragments = new ConcurrentLinkedQueue<>();
  private final ConcurrentLinkedQueue<String> mainClasses = new ConcurrentLinkedQueue<>();
  private final Map<String, ZipMember> libraryOf = new ConcurrentHashMap<>();
  private final SortedMap<String, ServletNamespace> initializers = new ConcurrentSkipListMap<>();

  /** A {@code web-fragment.xml} of a library. */
  record Fragment(String name, byte[] bytes) {}

  /** Reads one entry. */
  private interface Reading {
    void read(ClassLevels into, ZipMember member) throws IOException;
  }

  /**
   * @param programs whether libraries are asked for what they start
   */
  ClassReading(ZipArchive archive, boolean programs) {
    this.archive = archive;
    this.programs = programs;
  }

  /** What the classes need; put together in the order given, whoever read them. */
  ClassLevels read(List<ZipMember> ownClasses, List<ZipMember> libraries) throws IOException {
    List<CompletableFuture<ClassLevels>> parts = new ArrayList<>();
    for (int from = 0; from < ownClasses.size(); from += CHUNK) {
      List<ZipMember> some = ownClasses.subList(from, Math.min(from + CHUNK, ownClasses.size()));
      parts.add(begin(some, this::readOwn));
    }
    for (ZipMember library : libraries) {
      parts.add(begin(List.of(library), this::readLibrary));
    }
    ClassLevels all = new ClassLevels();
    try {
      parts.forEach(part -> all.add(part.join()));
      return all;
    } catch (CompletionException e) {
      if (e.getCause() instanceof UncheckedIOException io) {
        throw io.getCause();
      }
      throw e;
    } finally {
      all.end();
    }
  }

  private static CompletableFuture<ClassLevels> begin(List<ZipMember> members, Reading reading) {
    return CompletableFuture.supplyAsync(() -> levels(members, reading), READERS);
  }

  private static ClassLevels levels(List<ZipMember> members, Reading reading) {
    ClassLevels levels = new ClassLevels();
    try {
      for (ZipMember member : members) {
        reading.read(levels, member);
      }
      return levels;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } finally {
      levels.end();
    }
  }

  private void readOwn(ClassLevels into, ZipMember member) throws IOException {
    into.visitOwn(member.name(), archive.read(member, MOST_CLASS_BYTES));
  }

  private void readLibrary(ClassLevels into, ZipMember member) {
    try (ZipArchive library = archive.inside(member, MOST_LIBRARY_BYTES)) {
      for (ZipMember inside : library.members()) {
        if (inside.name().endsWith(".class")) {
          into.visitHead(member.name(), library, inside);
          into.brings(inside.name());
          libraryOf.merge(inside.name(), member, ClassReading::first);
        } else if (ServletUse.initializer(inside.name()).isPresent()) {
          readInitializer(member, library, inside);
        } else if (inside.name().equals(ArtifactReader.MANIFEST) && programs) {
          readProgram(library.read(inside, XmlDocument.MOST_BYTES));
        } else if (inside.name().equals("META-INF/web-fragment.xml")) {
          byte[] bytes = library.read(inside, XmlDocument.MOST_BYTES);
          fragments.add(new Fragment(member.name() + "!/" + inside.name(), bytes));
        }
      }
    } catch (IOException | IllegalArgumentException e) {
      into.fault("library '" + member.name() + "' is no readable archive: " + IoReason.of(e));
    }
  }

  /** A JAR inside that names a main class and libraries beside it is what the archive is for. */
  private void readProgram(byte[] bytes) throws IOException {
    Attributes attributes = new Manifest(new ByteArrayInputStream(bytes)).getMainAttributes();
    String main = attributes.getValue(Attributes.Name.MAIN_CLASS);
    if (main != null && attributes.getValue(Attributes.Name.CLASS_PATH) != null) {
      mainClasses.add(main);
    }
  }

  /** Of two libraries with one class the same is taken each time. */
  private static ZipMember first(ZipMember one, ZipMember other) {
    return one.name().compareTo(other.name()) < 0 ? one : other;
  }

  private void readInitializer(ZipMember member, ZipArchive library, ZipMember inside)
      throws IOException {
    String providers =
        new String(library.read(inside, XmlDocument.MOST_BYTES), StandardCharsets.UTF_8);
    if (ServletUse.startsTheApplication(providers)) {
      initializers.put(
          member.name() + "!/" + inside.name(),
          ServletUse.initializer(inside.name()).orElseThrow());
    }
  }

  /** The library in which a class stands, by the name of its entry there. */
  Map<String, ZipMember> libraryOf() {
    return libraryOf;
  }

  /** What starts an application without a descriptor, by the entry that names it. */
  SortedMap<String, ServletNamespace> initializers() {
    return initializers;
  }

  /** What the archive is for, when a JAR inside tells. */
  Optional<String> program() {
    return mainClasses.stream().sorted().findFirst();
  }

  /** In the order of their names. */
  List<Fragment> fragments() {
    return fragments.stream().sorted(Comparator.comparing(Fragment::name)).toList();
  }
}
