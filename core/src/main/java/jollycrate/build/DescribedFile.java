package jollycrate.build;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import jollycrate.app.Application;
import jollycrate.artifact.Artifact;
import jollycrate.foresee.Finding;

/** Compares a finished file with the description that it is delivered by. */
public final class DescribedFile {
  private DescribedFile() {}

  /** What somebody should know who delivers this file by that description. */
  public static List<Finding> findings(Artifact artifact, Application application) {
    String file = artifact.file().getFileName().toString();
    String description = application.file().orElseThrow().toString();
    List<Finding> findings = new ArrayList<>();
    if (related(artifact.name(), application.name()) || related(file, application.name())) {
      findings.add(
          Finding.note(file, "is delivered as " + description + " describes it; nothing is built"));
    } else {
      findings.add(
          Finding.warn(
              file,
              "calls itself '"
                  + artifact.name()
                  + "', and is delivered as the description of '"
                  + application.name()
                  + "' says",
              description,
              "Add --undescribed to deliver it by itself"));
    }
    return findings;
  }

  private static boolean related(String one, String other) {
    String first = one.toLowerCase(Locale.ROOT);
    String second = other.toLowerCase(Locale.ROOT);
    return first.contains(second) || second.contains(first);
  }
}
