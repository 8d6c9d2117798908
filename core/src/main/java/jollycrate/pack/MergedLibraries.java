package jollycrate.pack;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import jollycrate.artifact.ZipArchive;
import jollycrate.artifact.ZipMember;

/**
 * Unites the content of libraries in one archive with the project's own. The first that has a file
 * wins, as on a class path; what must be read together is merged, what means nothing there is
 * dropped, and all of it is told.
 */
final class MergedLibraries {
  private static final String PART = "libraries";
  private static final String VERSIONS = "META-INF/versions/";
  private static final int MOST_TEXT = 4 << 20;
  private static final Pattern SIGNATURE =
      Pattern.compile("META-INF/(SIG-[^/]*|[^/]+\\.(SF|RSA|DSA|EC))", Pattern.CASE_INSENSITIVE);
  private static final Pattern MODULE =
      Pattern.compile("(META-INF/versions/\\d+/)?module-info\\.class");
  private static final Pattern LICENCE =
      Pattern.compile(
          "(META-INF/)?((LICEN[CS]E|NOTICE|COPYING|COPYRIGHT|DEPENDENCIES|THIRD-PARTY)[^/]*"
              + "|(AL|LGPL|GPL|EPL|ASL)[-0-9.]+)",
          Pattern.CASE_INSENSITIVE);
  private static final Pattern LINES =
      Pattern.compile("META-INF/(services/[^/]+|.*\\.imports|cxf/bus-extensions\\.txt)");
  private static final Pattern PROPERTIES =
      Pattern.compile(
          "META-INF/(spring\\.(factories|handlers|schemas|tooling)|.*\\.versions\\.properties)");
  private static final Pattern APPENDED = Pattern.compile("reference\\.conf");

  private final Contents contents;
  private final Folder patterns;
  private final Map<String, List<Entry>> merged = new TreeMap<>();
  private final Map<String, List<String>> hidden = new LinkedHashMap<>();
  private final List<String> signed = new ArrayList<>();
  private final List<String> modules = new ArrayList<>();
  private final Set<String> dormant = new LinkedHashSet<>();
  private int licences;
  private boolean multiRelease;

  /**
   * @param contents holds the project's own files already
   */
  MergedLibraries(Contents contents, Folder patterns) {
    this.contents = contents;
    this.patterns = patterns;
  }

  /** Adds every library; whether the archive holds code for single Java versions. */
  boolean add(Libraries libraries) throws IOException {
    for (Library library : libraries.all()) {
      add(library);
    }
    for (Map.Entry<String, List<Entry>> one : merged.entrySet()) {
      writeMerged(one.getKey(), one.getValue());
    }
    tell();
    return multiRelease;
  }

  private void add(Library library) throws IOException {
    boolean versions = library.multiRelease();
    ZipArchive archive = library.archive();
    for (ZipMember member : archive.members()) {
      if (!member.isFolder() && !isDropped(library, member, versions)) {
        place(library, member);
      }
    }
    for (String name : archive.repeated()) {
      hidden
          .computeIfAbsent(library.fileName() + " twice in itself", k -> new ArrayList<>())
          .add(name);
    }
  }

  private boolean isDropped(Library library, ZipMember member, boolean versions) {
    String name = member.name();
    if (name.equals("META-INF/MANIFEST.MF") || name.equals("META-INF/INDEX.LIST")) {
      return true;
    }
    if (SIGNATURE.matcher(name).matches()) {
      signed.add(library.fileName() + "!/" + name);
      return true;
    }
    if (MODULE.matcher(name).matches()) {
      modules.add(library.fileName() + "!/" + name);
      return true;
    }
    if (name.startsWith(VERSIONS)) {
      multiRelease |= versions;
      if (!versions) {
        dormant.add(library.fileName());
      }
      return !versions;
    }
    return false;
  }

  private void place(Library library, ZipMember member) throws IOException {
    String name = member.name();
    Source source = new Source.OfMember(library.archive(), member, library.fileName());
    if (LICENCE.matcher(name).matches() && !name.endsWith(".class")) {
      String kept = "META-INF/licenses/" + library.base() + "/" + name;
      contents.add(new Entry(kept, source, "licences", false));
      licences++;
    } else if (patterns.isLeftOut(name)) {
      contents.leaveOut(name, "asked for by 'leave-out'", member.size());
    } else if (isMerged(name)) {
      merged
          .computeIfAbsent(name, k -> new ArrayList<>())
          .add(new Entry(name, source, PART, false));
    } else {
      placePlain(library, new Entry(name, source, PART, false));
    }
  }

  private static boolean isMerged(String name) {
    return LINES.matcher(name).matches()
        || PROPERTIES.matcher(name).matches()
        || APPENDED.matcher(name).matches();
  }

  private void placePlain(Library library, Entry entry) throws IOException {
    Entry stands = contents.entries().get(entry.name());
    if (stands == null) {
      contents.add(entry);
    } else if (!same(stands, entry)) {
      String winner =
          stands.source() instanceof Source.OfMember member ? member.library() : "the project";
      hidden
          .computeIfAbsent(winner + " over " + library.fileName(), k -> new ArrayList<>())
          .add(entry.name());
    }
  }

  private static boolean same(Entry one, Entry other) throws IOException {
    if (one.source() instanceof Source.OfMember a && other.source() instanceof Source.OfMember b) {
      return a.member().crc() == b.member().crc() && a.size() == b.size();
    }
    try (var in = one.source().open();
        var against = other.source().open()) {
      return one.source().size() == other.source().size()
          && Arrays.equals(in.readAllBytes(), against.readAllBytes());
    }
  }

  private void writeMerged(String name, List<Entry> parts) throws IOException {
    Entry own = contents.entries().get(name);
    List<Entry> all = new ArrayList<>();
    if (own != null) {
      all.add(own);
    }
    all.addAll(parts);
    if (all.size() == 1) {
      contents.add(all.get(0));
      return;
    }
    List<String> texts = new ArrayList<>();
    for (Entry entry : all) {
      try (var in = entry.source().open()) {
        texts.add(new String(in.readNBytes(MOST_TEXT), StandardCharsets.UTF_8));
      }
    }
    String text =
        PROPERTIES.matcher(name).matches()
            ? MergedTexts.properties(texts)
            : LINES.matcher(name).matches() ? MergedTexts.lines(texts) : String.join("\n", texts);
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    contents.replace(new Entry(name, new Source.OfBytes(bytes, name), PART, false));
    contents.remark(
        "merged " + name + " from " + all.size() + " places",
        all.stream().map(entry -> entry.source().place()).toList());
  }

  private void tell() {
    for (Map.Entry<String, List<String>> one : hidden.entrySet()) {
      int count = one.getValue().size();
      contents.warn(
          count + (count == 1 ? " file differs: " : " files differ: ") + one.getKey(),
          one.getValue());
    }
    if (!signed.isEmpty()) {
      contents.remark(
          "signature files dropped: they sign the library as it was", List.copyOf(signed));
    }
    if (!modules.isEmpty()) {
      contents.remark(
          "module descriptors dropped: the archive runs from the class path", List.copyOf(modules));
    }
    if (!dormant.isEmpty()) {
      contents.remark(
          "code for single Java versions dropped where the library does not switch it on",
          List.copyOf(dormant));
    }
    if (licences > 0) {
      contents.remark("licences and notices kept under META-INF/licenses/", List.of());
    }
  }
}
