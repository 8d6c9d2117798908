package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What runs in passing: an application that is followed while it changes, and its four shapes. */
@Order(2)
class LiveIT {
  @TempDir Path folder;

  private Program workshop(Path sample) {
    return Workshop.deskOf(sample).with("JOLLY_DATA", folder.resolve("data").toString());
  }

  @Test
  void changesAreFollowedUntilTheEndAndNothingIsLeft() throws Exception {
    Path sample = Workshop.copySample("spokes", folder);
    Path out = folder.resolve("out");
    int http = Workshop.freePort();
    Process process =
        workshop(sample).start(out, folder.resolve("err"), "run", "--http", "" + http);
    try {
      Yard.until("the first start", () -> text(out).contains("16 of 16 checks pass"));
      String address = "http://127.0.0.1:" + http + "/spokes/";
      Files.writeString(sample.resolve("web/style.css"), "/* polished */");
      Yard.until("the page", () -> count(out, "checks pass") == 2);
      assertThat(Pages.get(address + "style.css")).contains("polished");
      copyClasses(sample, "1.5.0");
      Yard.until("the classes", () -> count(out, "checks pass") == 3);
      assertThat(Pages.get(address)).contains("version 1.5.0");
      assertThat(text(out)).contains("15 of 16 checks pass");
      Path descriptor = sample.resolve("web/WEB-INF/web.xml");
      String sound = Files.readString(descriptor);
      Files.writeString(descriptor, sound.replace("spokes.Opening", "spokes.Gone"));
      Yard.until("the failure", () -> text(out).contains("class spokes.Gone is missing"));
      assertThat(Pages.get(address)).contains("version 1.5.0");
    } finally {
      process.destroy();
      assertThat(process.waitFor()).isZero();
    }
    assertThat(text(out)).contains("nothing is left");
    try (Stream<Path> left = Files.list(folder.resolve("data/run"))) {
      assertThat(left).isEmpty();
    }
  }

  private static void copyClasses(Path sample, String version) throws IOException {
    try (Stream<Path> classes = Files.list(sample.resolve("classes-" + version + "/spokes"))) {
      for (Path file : classes.toList()) {
        Files.copy(
            file,
            sample.resolve("classes-1.4.0/spokes").resolve(file.getFileName()),
            StandardCopyOption.REPLACE_EXISTING);
      }
    }
  }

  private static int count(Path file, String words) {
    return text(file).split(Pattern.quote(words), -1).length - 1;
  }

  private static String text(Path file) {
    try {
      return Files.readString(file);
    } catch (IOException e) {
      return "";
    }
  }

  @Test
  void fourShapesPassTheSameChecks() throws IOException {
    Path sample = Workshop.copySample("spokes", folder);
    Program.Run run = workshop(sample).run("try-shapes");
    assertThat(run.exit()).as(run.all()).isZero();
    List<String> lines = run.out().lines().toList();
    assertThat(lines)
        .filteredOn(line -> line.contains("16 of 16"))
        .extracting(line -> line.split("  ")[0])
        .containsExactly("from build output", "executable JAR", "executable WAR", "plain WAR");
    assertThat(folder.resolve("spokes/run")).doesNotExist();
  }
}
