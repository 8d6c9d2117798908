package jollycrate.service;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** One server is put into an upstream of nginx, and everything else stays byte for byte. */
class UpstreamSplicerTest {
  private static final String HERE = "127.0.0.1:8091";

  private final UpstreamSplicer splicer = new UpstreamSplicer();

  @ParameterizedTest
  @ValueSource(
      strings = {
        "upstream bell { server 127.0.0.1:9; }\n",
        "upstream bell {\n  server 127.0.0.1:9;\n}\n",
        "upstream bell {\r\n\tserver a:9 weight=2;  \r\n  server\n    b:10; keepalive 4; }",
        "# upstream bell { server x; }\nupstream other { server o:1; }\nupstream bell{server a;}",
        "upstream bell { # server commented out;\n server unix:/tmp/a\\ b.sock; }",
        "upstream bell { server \"a;b{c\"; zone z 64k; }\nserver { listen 80; }",
        "upstream  'other' { server x; }\nupstream bell { server ü:1; least_conn; }"
      })
  void whatIsPutInComesOutAgain(String text) {
    assertThat(Upstream.fault(text, "bell")).isEmpty();
    String edited = splicer.insert(text, "bell", HERE);
    assertThat(splicer.find(edited, "bell")).contains(HERE);
    assertThat(Upstream.in(edited, "bell").orElseThrow().servers()).hasSize(1);
    assertThat(edited).contains("server " + HERE + ";");
    String moved = splicer.insert(edited, "bell", "127.0.0.1:8092");
    assertThat(splicer.find(moved, "bell")).contains("127.0.0.1:8092");
    assertThat(splicer.remove(moved, "bell")).isEqualTo(text);
    assertThat(splicer.remove(text, "bell")).isEqualTo(text);
  }

  @Test
  void whatSomebodyWroteMeanwhileStays() {
    String text = "upstream bell {\n  server a;\n}\n";
    String edited = splicer.insert(text, "bell", HERE);
    String more = "# mine\n" + edited.replace("}\n", "  keepalive 8;\n}\n");
    assertThat(splicer.remove(more, "bell"))
        .isEqualTo("# mine\nupstream bell {\n  server a;\n  keepalive 8;\n}\n");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "events {}",
        "upstream bel { server a; }",
        "upstream bell { }",
        "upstream bell { server a; } upstream bell { server b; }",
        "upstream bell { server a; "
      })
  void whatCannotBeEditedIsSaid(String text) {
    assertThat(Upstream.fault(text, "bell")).isPresent();
    assertThat(splicer.insert(text, "bell", HERE)).isEqualTo(text);
  }
}
