package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The ends of the story: packing gives the same bytes anywhere, and the demo tells the truth. */
class PackAndDemoIT {
  private static final Pattern DIGEST = Pattern.compile("sha256 ([0-9a-f]{64})");

  @TempDir Path folder;

  @Test
  void theSameBytesInAnotherFolderAndTimeZone() throws IOException {
    Path one = Files.createDirectory(folder.resolve("one"));
    Path two = Files.createDirectory(folder.resolve("two"));
    try (Workshop first = Workshop.open(one);
        Workshop second = Workshop.open(two)) {
      Files.writeString(one.resolve("spokes/web/räder.txt"), "Räder");
      Files.writeString(two.resolve("spokes/web/räder.txt"), "Räder");
      second.program.with("TZ", "Pacific/Auckland").with("LC_ALL", "C");
      String packed = digest(first.ok("pack", "--digest"));
      assertThat(digest(second.ok("pack", "--digest"))).isEqualTo(packed);
      assertThat(digest(second.ok("inspect", "--digest", "crate/spokes-1.4.0.war")))
          .isEqualTo(packed);
      assertThat(first.ok("pack", "--digest")).contains("Unchanged:");
      assertThat(second.ok("inspect", "crate/spokes-1.4.0.war"))
          .contains("needs 17 (class-file version 61")
          .contains("jdbc/spokes  declared in WEB-INF/web.xml:");
    }
  }

  private static String digest(String text) {
    Matcher matcher = DIGEST.matcher(text);
    assertThat(matcher.find()).isTrue();
    return matcher.group(1);
  }

  @Test
  void theDemoGoesAsTold() {
    Program.Run demo = new Program(folder).run("demo", "--folder", "stage");
    assertThat(demo.exit()).as(demo.all()).isZero();
    assertThat(demo.out())
        .contains("Delivered spokes 1.4.0", "Delivered spokes 1.5.0", "Unchanged: spokes 1.5.0")
        .contains("Blocked: nothing was touched")
        .contains("spokes.TicketStore.list(TicketStore.java:")
        .contains("Taken back: bench is as it was before")
        .contains("No trace: all ");
    assertThat(folder.resolve("stage")).doesNotExist();
  }
}
