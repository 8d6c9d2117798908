package jollycrate.foresee;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.app.EnvEntry;
import jollycrate.artifact.Artifact;

/** Every environment entry has a value, of the type that the artifact declares. */
final class EntryRule implements Rule {
  @Override
  public List<Finding> look(Scene scene) {
    List<Finding> findings = new ArrayList<>();
    List<EnvEntry> described = scene.order().application().context().entries();
    for (Artifact.DeclaredEntry declared : scene.order().artifact().web().envEntries()) {
      Optional<EnvEntry> value =
          described.stream().filter(entry -> entry.name().equals(declared.name())).findFirst();
      if (value.isEmpty() && !declared.valued() && scene.traits().hosts()) {
        findings.add(
            Finding.warn(
                declared.name(),
                "this environment entry has no value, so looking it up fails",
                declared.where(),
                "Give it one in [env-entry]"));
      }
      value
          .filter(entry -> entry.secret().isEmpty())
          .filter(entry -> !EnvEntry.fits(entry.value(), declared.type()))
          .ifPresent(
              entry ->
                  findings.add(
                      Finding.blocker(
                          entry.name(),
                          "'" + entry.value() + "' is no " + declared.type(),
                          declared.where(),
                          "Give it another value in [env-entry]")));
    }
    return findings;
  }
}
