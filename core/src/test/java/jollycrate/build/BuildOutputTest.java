package jollycrate.build;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** Of what a failed build printed, the errors come first, and nothing that a terminal draws. */
class BuildOutputTest {
  @Test
  void theCompilersErrorsAreToldOnce() {
    BuildOutput output =
        BuildOutput.of(
            """
            [\033[1;31mERROR\033[m] COMPILATION ERROR :
            [ERROR] /src/spokes/Shop.java:[12,5] cannot find symbol
            [ERROR] /src/spokes/Shop.java:[12,5] cannot find symbol
            [ERROR]
            [ERROR] To see the full stack trace of the errors, re-run Maven with the -e switch.
            [ERROR] -> [Help 1]
            """);
    assertThat(output.told()).isEqualTo("[ERROR] /src/spokes/Shop.java:[12,5] cannot find symbol");
    assertThat(output.text()).doesNotContain("\033").contains("COMPILATION ERROR");
    assertThat(BuildOutput.of("src/Shop.java:3: error: ';' expected\n1 error").told())
        .isEqualTo("src/Shop.java:3: error: ';' expected");
    assertThat(BuildOutput.of("make: *** No rule to make target").told())
        .isEqualTo("make: *** No rule to make target");
  }
}
