package jollycrate.pack;

import java.io.File;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;

/** Lays the content of a shape out: which file goes where, and what the manifest says. */
final class Layout implements AutoCloseable {
  private static final String WAR_CLASSES = "WEB-INF/classes/";
  private static final String WAR_LIBRARIES = "WEB-INF/lib/";
  private static final String STANDALONE = "WEB-INF/standalone/";
  private static final String SERVER = "org/apache/catalina/startup/Tomcat.class";
  private static final String LAUNCHER = "jollycrate.standalone.Standalone";

  /** Packages that the server looks into when it stops, to find what an application left behind. */
  private static final String OPENED =
      "java.base/java.lang java.base/java.io java.base/java.util java.base/java.util.concurrent"
          + " java.rmi/sun.rmi.transport";

  private final PackRequest request;
  private final Contents contents = new Contents();
  private final Folder folders;
  private final OwnClasses classes;
  private final Libraries libraries;
  private final Map<String, String> attributes = new TreeMap<>();
  private Optional<String> mainClass = Optional.empty();

  Layout(PackRequest request) throws IOException {
    this.request = request;
    this.folders = new Folder(contents, request.choice().leaveOut());
    this.classes = new OwnClasses(request.shape().isJar() ? "" : WAR_CLASSES, request, contents);
    this.libraries = Libraries.open(request.libs(), request.choice().keep());
  }

  Contents contents() {
    return contents;
  }

  Optional<String> mainClass() {
    return mainClass;
  }

  /** Lays out; the entries in the order of the archive. */
  List<Entry> entries() throws IOException {
    switch (request.shape()) {
      case WAR -> war();
      case EXECUTABLE_WAR -> executableWar();
      case MERGED_JAR -> mergedJar();
      case JAR_AND_LIBS -> jarWithLibraries();
      case WEB -> web();
    }
    if (contents.entries().isEmpty()) {
      throw new PackException(
          "Cannot pack '"
              + request.name()
              + "': there is nothing to pack. Build the project first");
    }
    List<Entry> entries = new ArrayList<>();
    entries.add(Manifests.finished(contents, request, attributes));
    if (request.shape().isJar()) {
      addFolders();
    }
    entries.addAll(contents.sorted());
    return entries;
  }

  private void war() throws IOException {
    webApplication();
    for (Library library : libraries.ofServers()) {
      contents.leaveOut(
          WAR_LIBRARIES + library.fileName(), libraries.reasonOutside(library), library.size());
    }
  }

  private void webApplication() throws IOException {
    classes.add(folders);
    webFiles();
    for (Library library : libraries.own()) {
      folders.addFile(library.file(), WAR_LIBRARIES + library.fileName(), "libraries");
    }
    classes.tellMissing(folders.leftLibraries());
    if (request.choice().freshPages()) {
      PageCaching.addWhereNeeded(contents);
    }
  }

  private void webFiles() throws IOException {
    for (var folder : request.web()) {
      folders.add(Folder.at(folder, "web"), "", "web files");
    }
  }

  private void executableWar() throws IOException {
    webApplication();
    boolean server = false;
    try (Libraries told = Libraries.open(request.standalone(), List.of())) {
      List<Library> standalone = new ArrayList<>(libraries.ofServers());
      standalone.addAll(told.all());
      for (Library library : standalone) {
        folders.addFile(
            library.file(), STANDALONE + library.fileName(), "libraries for running standalone");
        server |= isServer(library);
      }
    }
    mainClass = Optional.of(request.main().isPresent() ? classes.mainClass(libraries) : LAUNCHER);
    attributes.put("Main-Class", LAUNCHER);
    if (request.main().isPresent()) {
      attributes.put("Start-Class", mainClass.get());
    }
    for (Map.Entry<String, byte[]> one : InsideParts.of("jollycrate/standalone").entrySet()) {
      contents.add(one.getKey(), one.getValue(), "launcher");
    }
    if (request.main().isEmpty()) {
      embeddedServer(server || libraries.own().stream().anyMatch(Layout::isServer));
    }
    contents.add(STANDALONE + "standalone.properties", standaloneProperties(), "launcher");
  }

  private static boolean isServer(Library library) {
    return library.archive().member(SERVER).isPresent();
  }

  private void embeddedServer(boolean there) throws IOException {
    attributes.put("Add-Opens", OPENED);
    if (!there) {
      throw new PackException(
          "Cannot pack '"
              + request.name()
              + "' to run standalone: no library holds an embedded server. Add the libraries of"
              + " embedded Apache Tomcat to 'standalone', or name a class of yours that starts one:"
              + " main = \"...\"");
    }
    for (Map.Entry<String, byte[]> one :
        InsideParts.of("jollycrate/standalone/tomcat").entrySet()) {
      contents.add(STANDALONE + "classes/" + one.getKey(), one.getValue(), "launcher");
    }
  }

  private String standaloneProperties() {
    Map<String, String> settings = new TreeMap<>(request.standaloneSettings());
    settings.put("title", (request.name() + " " + request.version()).strip());
    request.main().ifPresent(main -> settings.put("main", main));
    return PropertiesText.of(settings);
  }

  private void jarClasses() throws IOException {
    classes.add(folders);
    webFiles();
    if (classes.isEmpty() && request.main().isEmpty()) {
      throw new PackException(
          "Cannot pack '"
              + request.name()
              + "' as "
              + request.shape().label()
              + ": there are no classes in "
              + request.classes()
              + ". Build the project first, or fix 'classes'");
    }
    Optional<String> stated =
        request.main().isEmpty() ? Manifests.mainClass(contents) : Optional.empty();
    mainClass = Optional.of(stated.isPresent() ? stated.get() : classes.mainClass(libraries));
    attributes.put("Main-Class", mainClass.get());
  }

  private void mergedJar() throws IOException {
    jarClasses();
    if (new MergedLibraries(contents, folders).add(libraries)) {
      attributes.put("Multi-Release", "true");
    }
  }

  private void jarWithLibraries() throws IOException {
    jarClasses();
    if (!libraries.all().isEmpty()) {
      attributes.put(
          "Class-Path",
          String.join(
              " ", libraries.all().stream().map(one -> "lib/" + escaped(one.fileName())).toList()));
    }
  }

  /** As a relative URL, which is what {@code Class-Path} holds. */
  private static String escaped(String fileName) {
    return new File(fileName).toPath().getFileName().toUri().getRawPath().replaceFirst(".*/", "");
  }

  private void web() throws IOException {
    webFiles();
    new WebPages(request, contents).prepare();
  }

  /** Some frameworks look for classes by the folders that an archive lists. */
  private void addFolders() throws IOException {
    SortedSet<String> names = new TreeSet<>();
    for (String name : contents.entries().keySet()) {
      for (int slash = name.indexOf('/'); slash >= 0; slash = name.indexOf('/', slash + 1)) {
        names.add(name.substring(0, slash + 1));
      }
    }
    for (String name : names) {
      contents
          .entries()
          .put(name, new Entry(name, new Source.OfBytes(new byte[0], name), "folders", false));
    }
  }

  List<Library> libraries() {
    return libraries.all();
  }

  @Override
  public void close() throws IOException {
    libraries.close();
  }
}
