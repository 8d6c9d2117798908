package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** When the command returns, the right release answers: the new one, or the old one again. */
class RightReleaseIT {
  @TempDir Path folder;

  @Test
  void theNewReleaseAnswersWhenDeployReturns() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      workshop.ok("deploy", "--to", "bench");
      swap(workshop, "1.4.0", "1.5.0");
      swap(workshop, "1.5.0", "1.4.0");
    }
  }

  @Test
  void alsoWhenTheServerLooksRarely() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      workshop.edit(
          workshop.server.resolve("conf/server.xml"),
          "backgroundProcessorDelay=\"1\"",
          "backgroundProcessorDelay=\"10\"");
      workshop.ok("deploy", "--to", "bench");
      swap(workshop, "1.4.0", "1.5.0");
      workshop.edit("1.5.0", "1.6.0").ends(5, "deploy", "--to", "bench");
      assertThat(workshop.page("/spokes/")).contains("version 1.5.0");
    }
  }

  private static void swap(Workshop workshop, String from, String to) throws IOException {
    workshop.edit(from, to).ok("deploy", "--to", "bench");
    assertThat(workshop.page("/spokes/")).contains("version " + to);
  }

  @Test
  void theOldReleaseAnswersAfterATakeBack() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      Path right = shop("right.war", "", "right");
      Path throwing = shop("throws.war", "throw new IllegalStateException(\"no tyres\");", "right");
      Path hanging =
          shop(
              "hangs.war",
              "try { new java.util.concurrent.CountDownLatch(1).await(); }"
                  + " catch (InterruptedException e) { return; }",
              "right");
      Path wrong = shop("wrong.war", "", "wrong");
      java.nio.file.Files.writeString(
          workshop.folder.resolve("jolly.toml"),
          """
          name = "shop"
          artifact = "%s"
          [app]
          path = "/shop"
          starts-within = "60s"
          [[check]]
          get = "/"
          text = "right"
          """
              .formatted(right));
      workshop.ok("deploy", "--to", "bench");
      Trace standing = workshop.trace();
      String current = right.toString();
      for (Path failing : new Path[] {throwing, wrong, hanging}) {
        workshop.edit(current, failing.toString());
        if (failing.equals(hanging)) {
          workshop.edit("starts-within = \"60s\"", "starts-within = \"8s\"");
        }
        current = failing.toString();
        String told = workshop.ends(5, "deploy", "--to", "bench").out();
        assertThat(told)
            .contains(
                failing.equals(wrong)
                    ? "got"
                    : "at    shop.Start.contextInitialized(Start.java:4)");
        assertThat(workshop.page("/shop/")).as(failing.toString()).startsWith("200 right");
        workshop.trace().isAs(standing);
        assertThat(workshop.processes()).hasSize(1);
      }
    }
  }

  private Path shop(String name, String atStart, String answer) throws IOException {
    return Wars.with(folder, Wars.listener("Start"), Wars.servlet("Answer", "/*"))
        .source("Start", Wars.listenerSource("Start", atStart))
        .source(
            "Answer",
            Wars.servletSource("Answer", "response.getWriter().print(\"" + answer + "\");"))
        .write(name);
  }
}
