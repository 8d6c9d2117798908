package jollycrate.pack;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import jollycrate.artifact.ClassFacts;
import jollycrate.artifact.ZipMember;

/** The project's own classes: which go in, which of them starts, and what they miss. */
final class OwnClasses {
  private static final String CLASS = ".class";
  private static final Pattern OF_CONTAINERS = Pattern.compile("(jakarta|javax)\\.");
  private static final int MOST_BYTES = 16 << 20;

  private final String prefix;
  private final PackRequest request;
  private final Contents contents;
  private final Map<String, Integer> outside = new TreeMap<>();
  private final Set<String> leftClasses = new HashSet<>();
  private final Set<String> packages = new TreeSet<>();

  /**
   * @param prefix of classes inside the archive
   */
  OwnClasses(String prefix, PackRequest request, Contents contents) {
    this.prefix = prefix;
    this.request = request;
    this.contents = contents;
  }

  /** Adds the class folders, of chosen packages only when some are chosen. */
  void add(Folder folders) throws IOException {
    for (var folder : request.classes()) {
      Folder.at(folder, "classes");
      if (request.choice().packages().isEmpty()) {
        folders.add(folder, prefix, "classes");
      } else {
        addChosen(folders.files(folder, prefix));
      }
    }
    outside.forEach(
        (of, count) ->
            contents.leaveOut(
                of.replace('.', '/') + "/",
                "not among the chosen packages, " + count + (count == 1 ? " file" : " files"),
                0));
    if (!request.choice().packages().isEmpty()) {
      eachPackageIsThere();
      tellMissing();
    }
  }

  private void addChosen(List<Folder.Found> files) throws IOException {
    files.stream()
        .filter(file -> file.name().endsWith(CLASS))
        .forEach(file -> packages.add(packageOf(file.name())));
    for (Folder.Found file : files) {
      String of = packageOf(file.name());
      if (!packages.contains(of) || isChosen(of)) {
        contents.addFile(file.file(), file.name(), "classes");
      } else {
        outside.merge(of, 1, Integer::sum);
        leftClasses.add(className(file.name()));
      }
    }
  }

  private void eachPackageIsThere() {
    for (String chosen : request.choice().packages()) {
      if (packages.stream().noneMatch(of -> isBelow(of, chosen))) {
        throw new PackException(
            "Cannot pack '"
                + request.name()
                + "': no class is in package '"
                + chosen
                + "'. There are: "
                + String.join(", ", packages));
      }
    }
  }

  private boolean isChosen(String of) {
    return request.choice().packages().stream().anyMatch(chosen -> isBelow(of, chosen));
  }

  private static boolean isBelow(String of, String chosen) {
    return of.equals(chosen) || of.startsWith(chosen + ".");
  }

  private String packageOf(String name) {
    String inside = name.substring(prefix.length());
    int slash = inside.lastIndexOf('/');
    return slash < 0 ? "" : inside.substring(0, slash).replace('/', '.');
  }

  private String className(String name) {
    String inside = name.substring(prefix.length());
    return inside.replaceFirst("\\.class$", "").replace('/', '.');
  }

  private void tellMissing() throws IOException {
    Map<String, String> neededBy = neededBy(leftClasses);
    if (!neededBy.isEmpty()) {
      contents.warn(
          (neededBy.size() == 1 ? "1 class is" : neededBy.size() + " classes are")
              + " needed but left out; add the packages to 'packages'",
          told(neededBy));
    }
  }

  /**
   * Says which libraries are left out although own classes need them and no other one has what they
   * need. APIs of the servlet container are the server's.
   */
  void tellMissing(List<Path> leftLibraries) throws IOException {
    Set<String> taken = new HashSet<>();
    if (!leftLibraries.isEmpty()) {
      for (Entry entry : contents.entries().values()) {
        if (entry.name().endsWith(".jar") && entry.source() instanceof Source.OfFile file) {
          taken.addAll(classes(file.path()));
        }
      }
    }
    for (Path library : leftLibraries) {
      Set<String> left = new HashSet<>(classes(library));
      left.removeIf(name -> taken.contains(name) || OF_CONTAINERS.matcher(name).lookingAt());
      Map<String, String> neededBy = neededBy(left);
      if (!neededBy.isEmpty()) {
        contents.warn(
            library.getFileName()
                + " is left out and needed; take it out of 'leave-out', unless the server has it",
            told(neededBy));
      }
    }
  }

  private static Set<String> classes(Path archive) {
    try (Library library = Library.open(archive)) {
      return library.archive().members().stream()
          .map(ZipMember::name)
          .filter(name -> name.endsWith(CLASS))
          .map(name -> name.replaceFirst("\\.class$", "").replace('/', '.'))
          .collect(Collectors.toSet());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static List<String> told(Map<String, String> neededBy) {
    List<String> details = new ArrayList<>();
    neededBy.forEach((name, by) -> details.add(name + ", needed by " + by));
    return details;
  }

  /** Own classes that refer to one of these, by the one that they refer to. */
  private Map<String, String> neededBy(Set<String> left) throws IOException {
    Map<String, String> neededBy = new TreeMap<>();
    for (Entry entry : classEntries()) {
      Optional<ClassFacts> facts = facts(entry);
      if (facts.isPresent()) {
        for (String reference : facts.get().references()) {
          if (left.contains(reference)) {
            neededBy.putIfAbsent(reference, facts.get().name());
          }
        }
      }
    }
    return neededBy;
  }

  private List<Entry> classEntries() {
    return contents.sorted().stream()
        .filter(entry -> entry.name().startsWith(prefix) && entry.name().endsWith(CLASS))
        .filter(entry -> !entry.name().startsWith(prefix + "META-INF/"))
        .filter(entry -> entry.source() instanceof Source.OfFile)
        .toList();
  }

  private static Optional<ClassFacts> facts(Entry entry) throws IOException {
    try (InputStream in = entry.source().open()) {
      return ClassFacts.of(in.readNBytes(MOST_BYTES));
    }
  }

  boolean isEmpty() {
    return classEntries().isEmpty();
  }

  /**
   * The class to start: the one told, else the only one that can be started.
   *
   * @throws PackException when there is none, several, or the one told cannot be started
   */
  String mainClass(Libraries libraries) throws IOException {
    if (request.main().isPresent()) {
      startable(request.main().get(), libraries);
      return request.main().get();
    }
    List<String> found = startableClasses();
    if (found.size() == 1) {
      return found.get(0);
    }
    throw new PackException(
        "Cannot pack '"
            + request.name()
            + "' as "
            + request.shape().label()
            + ": "
            + (found.isEmpty()
                ? "none of its classes has a main method. Write one, or name a class of a library:"
                    + " main = \"...\""
                : found.size()
                    + " classes can be started: "
                    + String.join(", ", found)
                    + ". Choose one: main = \""
                    + found.get(0)
                    + "\""));
  }

  /** Every own class with a main method, sorted. */
  private List<String> startableClasses() throws IOException {
    List<String> found = new ArrayList<>();
    for (Entry entry : classEntries()) {
      facts(entry).filter(ClassFacts::startable).ifPresent(facts -> found.add(facts.name()));
    }
    return found;
  }

  /** The class itself, or one it descends from, own or of a library, must have a main method. */
  private void startable(String main, Libraries libraries) throws IOException {
    Optional<ClassFacts> facts = facts(main, libraries);
    if (facts.isEmpty()) {
      List<String> found = startableClasses();
      throw new PackException(
          "Cannot start '"
              + main
              + "': there is no such class. "
              + (found.isEmpty()
                  ? "No class of the project has a main method"
                  : "Classes with a main method: " + String.join(", ", found)));
    }
    while (facts.isPresent() && !facts.get().startable()) {
      String parent = facts.get().parent();
      facts = parent.isEmpty() ? Optional.empty() : facts(parent, libraries);
    }
    if (facts.isEmpty()) {
      throw new PackException(
          "Cannot start '"
              + main
              + "': it has no 'public static void main(String[] args)'. Write one, or choose"
              + " another 'main'");
    }
  }

  private Optional<ClassFacts> facts(String name, Libraries libraries) throws IOException {
    String path = name.replace('.', '/') + CLASS;
    Entry own = contents.entries().get(prefix + path);
    if (own != null) {
      return facts(own);
    }
    for (Library library : libraries.all()) {
      Optional<ZipMember> member = library.archive().member(path);
      if (member.isPresent()) {
        return ClassFacts.of(library.archive().read(member.get(), MOST_BYTES));
      }
    }
    return Optional.empty();
  }
}
