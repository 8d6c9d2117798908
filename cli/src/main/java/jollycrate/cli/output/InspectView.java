package jollycrate.cli.output;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import jollycrate.artifact.Artifact;
import jollycrate.file.Sizes;

/** Shows what an archive tells about itself. */
public final class InspectView {
  private static final int MOST_ENDPOINTS = 12;

  private final Screen screen;
  private final Path folder;

  /**
   * @param folder that paths are shown from
   */
  public InspectView(Screen screen, Path folder) {
    this.screen = screen;
    this.folder = folder;
  }

  /** The whole sheet. */
  public void show(Artifact artifact, List<String> goesTo) {
    Style style = screen.style();
    screen.line(style.strong((artifact.name() + " " + artifact.version()).strip()));
    Table table = new Table("  ");
    row(table, "kind", artifact.kind().label());
    row(table, "file", Amounts.shown(folder, artifact.file()));
    row(
        table,
        "size",
        Sizes.told(artifact.size())
            + " in "
            + Amounts.count(artifact.entries(), "entry", "entries"));
    if (!artifact.digest().isEmpty()) {
      row(table, "digest", "sha256 " + artifact.digest());
    }
    row(table, "java", java(artifact));
    row(table, "servlets", artifact.web().namespace().label() + style.faint(shownBy(artifact)));
    row(
        table,
        "goes to",
        goesTo.isEmpty() ? "no server that is known here" : String.join(", ", goesTo));
    missing(table, artifact.classes());
    artifact.start().mainClass().ifPresent(main -> row(table, "main class", main));
    artifact.start().startClass().ifPresent(start -> row(table, "goes on to", start));
    layout(table, artifact.layout());
    endpoints(table, artifact);
    String label = "data source";
    for (Artifact.Declared declared : artifact.web().dataSources()) {
      row(table, label, declared.name() + style.faint("  declared in " + declared.where()));
      label = "";
    }
    label = "resource";
    for (Artifact.Resource resource : artifact.web().resources()) {
      row(
          table,
          label,
          resource.name() + style.faint("  " + resource.type() + ", " + resource.where()));
      label = "";
    }
    label = "env entry";
    for (Artifact.DeclaredEntry entry : artifact.web().envEntries()) {
      String valued = entry.valued() ? "" : ", without a value";
      row(
          table,
          label,
          entry.name() + style.faint("  " + entry.type() + valued + ", " + entry.where()));
      label = "";
    }
    if (!artifact.web().roles().isEmpty()) {
      row(table, "roles", String.join(", ", artifact.web().roles()));
    }
    label = "guarded";
    for (Artifact.Guarded guarded : artifact.web().guarded()) {
      String by = guarded.roles().isEmpty() ? "nobody" : String.join(", ", guarded.roles());
      row(
          table,
          label,
          String.join(" ", guarded.patterns()) + faint("  for " + by + ", " + guarded.where()));
      label = "";
    }
    label = "fault";
    for (String fault : artifact.faults()) {
      table.row().cell(label, style::bad).cell(fault);
      label = "";
    }
    table.lines().forEach(screen::line);
  }

  /** What has to be there and is not inside. */
  private void missing(Table table, Artifact.Classes classes) {
    String label = "not inside";
    for (Map.Entry<String, String> missing : classes.missing().entrySet()) {
      String whose =
          Artifact.Classes.isOfServers(missing.getKey())
              ? "a server's own"
              : "not in Java since release 11";
      row(
          table,
          label,
          missing.getKey() + faint("  " + whose + ", needed by " + missing.getValue()));
      label = "";
    }
    for (Map.Entry<String, String> absent : classes.absent().entrySet()) {
      row(table, label, absent.getKey() + faint("  named in " + absent.getValue()));
      label = "";
    }
  }

  private void layout(Table table, Artifact.Layout layout) {
    if (layout.script() > 0) {
      row(table, "script", Sizes.told(layout.script()) + " of shell before the archive");
    }
    if (!layout.libraries().isEmpty()) {
      row(table, "libraries", inside(layout.libraries()));
    }
    if (!layout.beside().isEmpty()) {
      row(
          table,
          "beside it",
          Amounts.count(layout.beside().size(), "library", "libraries")
              + faint("  by Class-Path: " + String.join(" ", layout.beside())));
    }
    String label = "modules";
    for (String module : layout.modules()) {
      row(table, label, module);
      label = "";
    }
    if (layout.multiRelease()) {
      row(table, "versions", "multi-release: code for single Java versions inside");
    }
  }

  private static String inside(List<Artifact.Library> libraries) {
    Map<String, List<Artifact.Library>> byFolder =
        libraries.stream()
            .collect(
                Collectors.groupingBy(
                    library -> library.path().replaceFirst("[^/]*$", ""),
                    TreeMap::new,
                    Collectors.toList()));
    return byFolder.entrySet().stream()
        .map(
            folder ->
                Amounts.count(folder.getValue().size(), "archive", "archives")
                    + " in "
                    + (folder.getKey().isEmpty() ? "/" : folder.getKey())
                    + ", "
                    + Sizes.told(folder.getValue().stream().mapToLong(Artifact.Library::size).sum())
                    + (folder.getValue().stream().allMatch(Artifact.Library::stored)
                        ? " stored"
                        : " deflated"))
        .collect(Collectors.joining("; "));
  }

  private void endpoints(Table table, Artifact artifact) {
    int shown = Math.min(MOST_ENDPOINTS, artifact.web().endpoints().size());
    Table endpoints = new Table("");
    for (Artifact.Endpoint endpoint : artifact.web().endpoints().subList(0, shown)) {
      endpoints
          .row()
          .cell(endpoint.pattern().isEmpty() ? "/ exactly" : endpoint.pattern())
          .cell(endpoint.servlet() + ", " + endpoint.where(), screen.style()::faint);
    }
    String label = "endpoints";
    for (String line : endpoints.lines()) {
      row(table, label, line);
      label = "";
    }
    if (artifact.web().endpoints().size() > shown) {
      row(
          table,
          "",
          faint("and " + (artifact.web().endpoints().size() - shown) + " more in --json"));
    }
  }

  private String faint(String text) {
    return screen.style().faint(text);
  }

  /** What is the application's own needs no place; what a library or descriptor asks for does. */
  private static String shownBy(Artifact artifact) {
    return artifact.web().servlets().uses().stream()
        .findFirst()
        .filter(use -> !use.seen().endsWith(".class"))
        .map(use -> "  " + use.seen())
        .orElse("");
  }

  private void row(Table table, String label, String value) {
    table.row().cell(label, screen.style()::faint).cell(value);
  }

  private static String java(Artifact artifact) {
    return artifact.classes().highestLevel() == 0
        ? "no classes inside"
        : "needs "
            + artifact.classes().javaLabel()
            + " (class-file version "
            + artifact.classes().highestLevel()
            + ", "
            + artifact.classes().highestClass()
            + ")";
  }
}
