package jollycrate.script;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class StatementTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '!',
      textBlock =
          """
          A; B;                         | 1 A, 1 B
          A\\n;\\n\\nB                  | 1 A, 4 B
          -- a;b\\n/* c;\\nd */ A; ;    | 3 A
          A 'x;y'';z'; B                | 1 A 'x;y'';z', 1 B
          A "x;y" `p;q`;B               | 1 A "x;y" `p;q`, 1 B
          A $$ x; 'y $$; B              | 1 A $$ x; 'y $$, 1 B
          A $f$ x; $$ ; $f$;B           | 1 A $f$ x; $$ ; $f$, 1 B
          A 1-2/3 -- last;              | 1 A 1-2/3 -- last;
          -- only a word                | !!
          /* a /* b; */ c; */ A; B      | 1 A, 1 B
          /* a /* b; */ A; B            | 1 A, 1 B
          A /* x; */ 1;\\nB             | 1 A /* x; */ 1, 2 B
          """)
  void aSemicolonEndsAStatementUnlessItIsHidden(String text, String expected) {
    assertThat(told(text, Optional.empty())).isEqualTo(expected);
  }

  @Test
  void aLineEndsThemWhereThatIsAsked() {
    assertThat(told("A;\\nB\\n go \\n\\nC\\nGO\\nGO", Optional.of("GO"))).isEqualTo("1 A;\nB, 5 C");
  }

  /** Each line is counted once: what counts from the top again takes hours for this. */
  @Test
  void manyOfThemAreParted() {
    List<Statement> many =
        Statement.of("INSERT INTO t VALUES (1);\n".repeat(600_000), Optional.empty());
    assertThat(many).hasSize(600_000);
    assertThat(many.get(599_999).line()).isEqualTo(600_000);
  }

  @ParameterizedTest
  @CsvSource({
    "COMMIT, true",
    "begin work, true",
    "START  TRANSACTION, true",
    "END, true",
    "ROLLBACK TO SAVEPOINT a, false",
    "BEGIN x := 1, false",
    "INSERT INTO end, false"
  })
  void whatControlsATransactionIsKnown(String text, boolean expected) {
    assertThat(new Statement(1, text).controlsTransaction()).isEqualTo(expected);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '!',
      textBlock =
          """
          A;\\nB 'x; C     | line 2: '
          A /* x           | line 1: /*
          \\nA $x$ y       | line 2: $x$
          """)
  void whatIsNeverClosedIsNamed(String text, String expected) {
    assertThatThrownBy(() -> told(text, Optional.empty()))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining(expected + " is never closed");
  }

  private static String told(String text, Optional<String> splitAt) {
    return Statement.of(text.replace("\\n", "\n"), splitAt).stream()
        .map(statement -> statement.line() + " " + statement.text())
        .collect(Collectors.joining(", "));
  }
}
