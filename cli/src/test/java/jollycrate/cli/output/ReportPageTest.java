package jollycrate.cli.output;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Check;
import jollycrate.check.CheckResult;
import jollycrate.check.Times;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.server.Cause;
import jollycrate.watch.Aim;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A report stands by itself, says what is wrong in words, and holds no secret and no foreign tag.
 */
class ReportPageTest {
  @TempDir Path folder;

  private static CheckResult result(
      String name, List<CheckResult.Miss> misses, Optional<Check.Cell> cell, String picture) {
    Times times =
        new Times(
            9,
            2,
            0,
            "",
            450,
            new Times.Percentiles(1.5, 2, 2, 3, 3),
            List.of(new Times.Bar(2, 6), new Times.Bar(4, 3)));
    return new CheckResult(
        name,
        "GET http://bench/spokes/?key=s3cret",
        misses.isEmpty() ? 200 : 404,
        Optional.empty(),
        Duration.ofMillis(12),
        misses,
        misses.isEmpty()
            ? Optional.empty()
            : Optional.of(Cause.of("nothing is mapped to <this>", "Look")),
        true,
        cell,
        cell.isPresent() ? Optional.empty() : Optional.of(times),
        picture);
  }

  private Document page(boolean right, List<CheckResult> checks) throws IOException {
    Aim aim =
        new Aim(
            "deploy",
            new Aim.Release("spokes", "1.5.0", "1.4.0", "abc", 10, ""),
            new Aim.Place("bench", "Tomcat 10.1", 17, "/srv/bench", "", "http://bench/spokes"));
    DeliveryOutcome outcome =
        new DeliveryOutcome(
            right ? DeliveryOutcome.Result.DELIVERED : DeliveryOutcome.Result.TAKEN_BACK,
            aim,
            3,
            List.of(),
            List.of(),
            List.of(),
            checks,
            Optional.empty(),
            List.of(),
            List.of(),
            "",
            Optional.empty(),
            Optional.empty(),
            1500);
    Path file = folder.resolve("report.html");
    new ReportPage(outcome, Instant.EPOCH, right, text -> text.replace("s3cret", "(hidden)"))
        .write(file);
    String html = Files.readString(file);
    assertThat(html).doesNotContain("s3cret", "<script", "@import", "src=\"http", "href=");
    return Jsoup.parse(html);
  }

  @Test
  void whatFailedIsToldInWordsAndNothingOfItIsRun() throws IOException {
    CheckResult.Miss miss = new CheckResult.Miss("text", "<b>", "<script>alert('s3cret')</script>");
    Optional<Check.Cell> cell = Optional.of(new Check.Cell("/ledger", Optional.empty(), false));
    Document page =
        page(
            false,
            List.of(
                result("the <front> page", List.of(miss), Optional.empty(), ""),
                result("anyone may not see /ledger", List.of(miss), cell, "")));
    assertThat(page.selectFirst(".verdict").text())
        .isEqualTo(
            "Failed: taken back, all is as it was before; 2 of 2 checks failed (delivery 3, 1.5 s)");
    assertThat(page.select("tbody th").eachText().get(0))
        .contains("the <front> page", "got <script>alert('(hidden)')</script>", "<this>");
    assertThat(page.select("td.bad").eachText())
        .containsExactly("FAIL", "WRONG: 404, is to be kept out");
    assertThat(page.select("table th[scope=col]").eachText()).contains("check", "anyone");
  }

  @Test
  void timesAndPicturesHaveTextsForWhoeverDoesNotSeeThem() throws IOException {
    Document page = page(true, List.of(result("quick", List.of(), Optional.empty(), "AAAA")));
    assertThat(page.selectFirst(".verdict").text())
        .isEqualTo("Right: delivered; 1 check passes (delivery 3, 1.5 s)");
    assertThat(page.selectFirst("svg[role=img]").attr("aria-label"))
        .contains("p50 1.5 ms", "longest 3.0 ms");
    assertThat(page.select("svg rect")).hasSize(2);
    assertThat(page.selectFirst("img").attr("alt")).contains("(hidden)");
    assertThat(page.selectFirst("img").attr("src")).isEqualTo("data:image/jpeg;base64,AAAA");
  }
}
