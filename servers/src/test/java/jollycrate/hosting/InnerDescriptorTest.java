package jollycrate.hosting;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class InnerDescriptorTest {
  @Test
  void whatIsPutInIsNamedLikeTheRest() {
    String own =
        "<ee:web-app xmlns:ee=\"https://jakarta.ee/xml/ns/jakartaee\"><ee:env-entry>"
            + "<ee:env-entry-name>shop</ee:env-entry-name></ee:env-entry></ee:web-app>";
    InnerDescriptor descriptor =
        InnerDescriptor.of("web.xml", Optional.of(own.getBytes(StandardCharsets.UTF_8)), "<a/>");
    assertThat(descriptor.has("env-entry", "env-entry-name", "shop")).isTrue();
    assertThat(descriptor.says()).isFalse();
    descriptor.put("env-entry", "env-entry-name", "shop", "env-entry-value", "<Spokes>");
    assertThat(descriptor.says()).isTrue();
    assertThat(new String(descriptor.text(), StandardCharsets.UTF_8))
        .containsOnlyOnce("<ee:env-entry>")
        .contains("<ee:env-entry-value>&lt;Spokes&gt;</ee:env-entry-value></ee:env-entry>");
  }
}
