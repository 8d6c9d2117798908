package jollycrate.draft;

import java.util.List;
import java.util.Optional;

/**
 * A plug-in of a build that makes a program of the archive, which a merged archive of ours would
 * not be.
 *
 * @param plugin its name in a {@code pom.xml}
 * @param gradle what names it in a script of Gradle; empty where there is none
 * @param port how such a program is told its port; empty: nobody knows
 */
record ProgramMaker(String plugin, String gradle, String port) {
  static final String QUARKUS = "quarkus-maven-plugin";
  static final String ASSEMBLY = "maven-assembly-plugin";

  private static final List<ProgramMaker> ALL =
      List.of(
          new ProgramMaker(
              "spring-boot-maven-plugin",
              "org.springframework.boot",
              "{ argument = \"--server.port={value}\" }"),
          new ProgramMaker(QUARKUS, "io.quarkus", "{ property = \"quarkus.http.port\" }"),
          new ProgramMaker(
              "micronaut-maven-plugin",
              "io.micronaut.application",
              "{ property = \"micronaut.server.port\" }"),
          new ProgramMaker("helidon-maven-plugin", "", "{ property = \"server.port\" }"),
          new ProgramMaker("maven-shade-plugin", "shadow", ""),
          new ProgramMaker(ASSEMBLY, "", ""));

  /** The one that a {@code pom.xml} names. */
  static Optional<ProgramMaker> ofMaven(List<String> plugins) {
    return ALL.stream().filter(maker -> plugins.contains(maker.plugin)).findFirst();
  }

  /** The one that a script of Gradle names. */
  static Optional<ProgramMaker> ofGradle(String script) {
    return ALL.stream()
        .filter(maker -> !maker.gradle.isEmpty() && script.contains(maker.gradle))
        .findFirst();
  }
}
