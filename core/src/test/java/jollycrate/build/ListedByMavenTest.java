package jollycrate.build;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import jollycrate.app.MavenCoordinates;
import org.junit.jupiter.api.Test;

class ListedByMavenTest {
  @Test
  void aLineIsALibraryWithItsScopeAndFile() {
    ListedByMaven listed =
        new ListedByMaven(
            """

            The following files have been resolved:
               org.spokes:lamp:jar:3.1:compile:/m2/lamp-3.1.jar -- module org.spokes.lamp (auto)
               org.spokes:pump:jar:linux:2.0:runtime:/m2/pump-2.0-linux.jar
               org.spokes:bell:jar:1:test (optional):/m2/bell-1.jar
               org.spokes:lock:jar:1:runtime:/m2/lock-1.jar (optional)  -- module lock (auto)
               org.spokes:all:pom:1:compile:/m2/all-1.pom
            """);
    assertThat(listed.ofRunTime())
        .containsExactly(
            Path.of("/m2/lamp-3.1.jar"),
            Path.of("/m2/pump-2.0-linux.jar"),
            Path.of("/m2/lock-1.jar"));
    assertThat(listed.library(MavenCoordinates.of("maven:org.spokes:bell")))
        .contains(Path.of("/m2/bell-1.jar"));
    assertThat(listed.library(MavenCoordinates.of("maven:org.spokes:pump"))).isEmpty();
  }
}
