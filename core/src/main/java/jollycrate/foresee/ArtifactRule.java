package jollycrate.foresee;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ArtifactKind;
import jollycrate.artifact.ServletApi;
import jollycrate.artifact.ServletNamespace;
import jollycrate.artifact.ZipArchive;

/** The artifact is readable, of a kind the server takes, and made for its Java and servlet API. */
final class ArtifactRule implements Rule {
  private static final int FIRST_WITHOUT_MODULES = 11;

  @Override
  public List<Finding> look(Scene scene) {
    Artifact artifact = scene.order().artifact();
    String name = artifact.file().getFileName().toString();
    List<Finding> findings = new ArrayList<>();
    for (String fault : artifact.faults()) {
      findings.add(
          Finding.blocker(name, fault, "", "Fix it in the project and build the artifact again"));
    }
    boolean named =
        artifact.kind() == ArtifactKind.LIBRARY_JAR
            && scene.order().application().program().main().isPresent();
    ArtifactKind kind = named ? ArtifactKind.EXECUTABLE_JAR : artifact.kind();
    if (!scene.traits().takes().contains(kind)) {
      findings.add(notTaken(scene, artifact, name));
    }
    java(scene, artifact, name, findings);
    main(scene, artifact, findings);
    namespace(scene, artifact, name, findings);
    modules(scene, artifact, name, findings);
    if (scene.traits().hosts()) {
      notThere(scene, artifact, name, findings);
    }
    return findings;
  }

  private static Finding notTaken(Scene scene, Artifact artifact, String name) {
    boolean war = scene.traits().takes().contains(ArtifactKind.WAR);
    return Finding.blocker(
        name,
        "it is no "
            + (war ? "WAR" : "program that runs by itself")
            + " but: "
            + artifact.kind().label()
            + ", and "
            + (war ? "" : "a ")
            + scene.traits().label()
            + " takes "
            + (war ? "a WAR" : "an executable JAR or WAR"),
        war ? "no WEB-INF/ folder inside" : "no Main-Class in META-INF/MANIFEST.MF",
        war
            ? artifact.kind() == ArtifactKind.EAR
                ? "Deliver one of the web modules inside it by itself"
                : artifact.kind() == ArtifactKind.EXECUTABLE_JAR
                    ? "It runs by itself: 'jolly server new NAME --kind service', then deliver it"
                        + " there"
                    : "Deliver a WAR"
            : artifact.kind() == ArtifactKind.EAR
                ? "An EAR needs a server for enterprise applications"
                : "Pack it in the shape merged-jar or executable-war, or name its 'main' in"
                    + " [program]");
  }

  private static void main(Scene scene, Artifact artifact, List<Finding> findings) {
    scene
        .order()
        .application()
        .program()
        .main()
        .filter(main -> !scene.traits().hosts() && lacks(artifact, main))
        .ifPresent(
            main ->
                findings.add(
                    Finding.blocker(
                        main,
                        "the class to start is not in the artifact",
                        artifact.file().getFileName().toString(),
                        "Fix 'main' in [program]")));
  }

  private static boolean lacks(Artifact artifact, String main) {
    String entry = main.strip().replace('.', '/') + ".class";
    try (ZipArchive archive = ZipArchive.open(artifact.file())) {
      return artifact.layout().beside().isEmpty()
          && artifact.layout().libraries().isEmpty()
          && archive.members().stream().noneMatch(member -> member.name().endsWith(entry));
    } catch (IOException e) {
      return false;
    }
  }

  private static void java(Scene scene, Artifact artifact, String name, List<Finding> findings) {
    int has = scene.stock().javaFeature();
    if (artifact.classes().java() > has) {
      findings.add(
          Finding.blocker(
              name,
              "it needs Java " + artifact.classes().java() + ", and the server runs on Java " + has,
              artifact.classes().highestClass()
                  + " has class-file version "
                  + artifact.classes().highestLevel(),
              "Compile with --release "
                  + has
                  + ", or give the server another 'java' in servers.toml"));
    }
    if (has < scene.traits().leastJava()) {
      findings.add(
          Finding.blocker(
              scene.stock().server().name(),
              scene.traits().label()
                  + " needs Java "
                  + scene.traits().leastJava()
                  + " and has Java "
                  + has,
              scene.stock().server().runtime().java().toString(),
              "Give the server another 'java' in servers.toml"));
    }
  }

  private static void namespace(
      Scene scene, Artifact artifact, String name, List<Finding> findings) {
    ServletNamespace offers = scene.traits().namespace();
    ServletNamespace uses = artifact.web().namespace();
    if (Set.of(ServletNamespace.NONE, ServletNamespace.BOTH).contains(offers)
        || uses == ServletNamespace.NONE) {
      return;
    }
    Optional<ServletApi.Use> wrong =
        artifact
            .web()
            .servlets()
            .startedWithout(offers)
            .or(
                () ->
                    uses == ServletNamespace.BOTH ? Optional.empty() : wrongUse(artifact, offers));
    if (wrong.isPresent()) {
      findings.add(
          Finding.blocker(
              name,
              "it is made for "
                  + wrong.get().namespace().label()
                  + ".servlet, and "
                  + scene.traits().label()
                  + " offers "
                  + offers.label()
                  + ".servlet",
              wrong.get().seen(),
              "Deliver a release made for "
                  + offers.label()
                  + ".servlet, or take a server that offers "
                  + wrong.get().namespace().label()
                  + ".servlet (Tomcat "
                  + (offers == ServletNamespace.JAKARTA ? "9" : "10 or later")
                  + ", or Jetty 12.1); as it is, its pages would answer 404 or 500"));
    } else if (uses == ServletNamespace.BOTH) {
      findings.add(
          Finding.warn(
              name,
              "its classes refer to both javax.servlet and jakarta.servlet; the server offers "
                  + offers.label()
                  + ".servlet",
              artifact.web().servlets().use(other(offers)).map(ServletApi.Use::seen).orElse(""),
              "Make sure that the servlets themselves extend " + offers.label() + ".servlet"));
    }
  }

  private static Optional<ServletApi.Use> wrongUse(Artifact artifact, ServletNamespace offers) {
    return artifact.web().servlets().use(other(offers));
  }

  private static ServletNamespace other(ServletNamespace one) {
    return one == ServletNamespace.JAVAX ? ServletNamespace.JAKARTA : ServletNamespace.JAVAX;
  }

  /** What Java 11 took out is missing only when the code that refers to it is run. */
  private static void modules(Scene scene, Artifact artifact, String name, List<Finding> findings) {
    if (scene.stock().javaFeature() < FIRST_WITHOUT_MODULES) {
      return;
    }
    artifact
        .classes()
        .missing()
        .forEach(
            (gone, entry) -> {
              if (!Artifact.Classes.isOfServers(gone)) {
                findings.add(
                    Finding.warn(
                        name,
                        "it refers to "
                            + gone.substring(0, gone.length() - 1).replace('/', '.')
                            + ", which Java has no longer since release 11, and no library inside"
                            + " brings it",
                        entry,
                        "Add a library that holds it, or run the server on Java 8"));
              }
            });
  }

  /** Classes that the server would need to have; its own libraries may hold them. */
  private static void notThere(
      Scene scene, Artifact artifact, String name, List<Finding> findings) {
    String label = scene.traits().label();
    artifact.classes().absent().entrySet().stream()
        .filter(absent -> !scene.traits().brings(absent.getKey()))
        .forEach(
            absent ->
                findings.add(
                    Finding.warn(
                        name,
                        absent.getKey() + " is not inside, and " + label + " does not bring it",
                        absent.getValue(),
                        "Add the library that holds it to WEB-INF/lib, if it does not stand among"
                            + " the server's own")));
    artifact.classes().missing().entrySet().stream()
        .filter(missing -> Artifact.Classes.isOfServers(missing.getKey()))
        .map(missing -> Map.entry(missing.getKey().replace('/', '.'), missing.getValue()))
        .filter(missing -> !scene.traits().brings(missing.getKey()))
        .forEach(
            missing ->
                findings.add(
                    Finding.warn(
                        name,
                        "one of its classes descends from "
                            + missing.getKey().replaceFirst("\\.$", "")
                            + ", classes of another server that neither it nor "
                            + label
                            + " brings",
                        missing.getValue(),
                        "Add the library that holds them, or deliver it to that server")));
  }
}
