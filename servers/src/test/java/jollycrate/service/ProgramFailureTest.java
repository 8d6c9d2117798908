package jollycrate.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import jollycrate.server.Cause;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a program printed last says why it failed. */
class ProgramFailureTest {
  private final ProgramFailure failures = new ProgramFailure(List.of("bell.tower"));

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          Error: Could not find or load main class bell.Gone | there is no main class bell.Gone
          no main manifest attribute, in /x/bell.jar | it is not executable
          Error: Main method not found in class bell.Tower, please define | bell.Tower has no main method
          Error: Unable to access jarfile /x/bell.jar | Java cannot open the artifact
          java.lang.UnsupportedClassVersionError: bell/Tower has been compiled by a more recent \
          version of the Java Runtime (class file version 65.0), this | it needs Java 21
          exec: line 1: /opt/java/bin/java: not found | there is no Java at /opt/java/bin/java
          Unrecognized VM option 'Foo' | Unrecognized VM option 'Foo'
          Invalid maximum heap size: -Xmxmuch | Invalid maximum heap size
          Error occurred during initialization of VM\\nCould not reserve enough space | Could not reserve
          Terminating due to java.lang.OutOfMemoryError: Java heap space | it ran out of memory (Java heap space)
          Caused by: java.net.BindException: Address already in use | a port that it opens is taken
          X accessible: module java.base does not "opens java.lang" to unnamed module @1 | reaches into java.lang
          """)
  void wellKnownLinesAreUnderstood(String printed, String what) {
    Cause cause = failures.in("starting\n" + printed.replace("\\n", "\n") + "\n").orElseThrow();
    assertThat(cause.what().replace("the artifact is not executable", "it is not executable"))
        .contains(what);
    assertThat(cause.next()).isNotEmpty();
  }

  @Test
  void theInnermostExceptionAndTheOwnFrameAreTold() {
    String printed =
        """
        08:00 ERROR [main] start failed
        java.lang.IllegalStateException: cannot hang
        \tat lib.Start.run(Start.java:3) ~[lib.jar!/:1]
        \tat bell.tower.Tower.main(Tower.java:40) ~[classes!/:na]
        Caused by: java.lang.NumberFormatException: For input string: "loud"
        \tat java.base/java.lang.Integer.parseInt(Integer.java:668) ~[na:na]
        \tat bell.tower.Rings.<init>(Rings.java:17) ~[classes!/:na]
        \t... 5 common frames omitted
        08:01 INFO  [main] bye
        """;
    Cause cause = failures.in(printed).orElseThrow();
    assertThat(cause.what()).isEqualTo("NumberFormatException: For input string: \"loud\"");
    assertThat(cause.where()).isEqualTo("bell.tower.Rings.<init>(Rings.java:17)");
    assertThat(cause.why()).contains("IllegalStateException: cannot hang");
  }

  @Test
  void whatIsNoFailureIsNone() {
    assertThat(failures.in("INFO all is well\nopen at 8080\n")).isEqualTo(Optional.empty());
  }
}
