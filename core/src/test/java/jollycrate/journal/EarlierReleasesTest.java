package jollycrate.journal;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import jollycrate.app.Application;
import jollycrate.app.Ask;
import jollycrate.app.Check;
import jollycrate.app.Keeping;
import jollycrate.app.ServerLog;
import jollycrate.host.Content;
import jollycrate.host.Host;
import jollycrate.host.HostFiles;
import jollycrate.json.Json;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.server.Swap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is kept of earlier releases stays within its number and its space. */
class EarlierReleasesTest {
  @TempDir Path folder;
  private final HostFiles files = Host.local().files();

  private EarlierReleases releases() {
    return new EarlierReleases(files, folder.resolve("releases"));
  }

  private void delivered(int number, int restores, String content, Keeping limits) {
    EarlierRelease release =
        new EarlierRelease(
            number,
            restores,
            Application.of(Path.of("a.war"), "a", Optional.empty(), Duration.ZERO),
            content,
            "",
            false,
            List.of(new EarlierRelease.Original(Path.of("a.war"), content, 10)));
    releases().add(release, files.facts(folder).access(), List.of(content));
    Placement placement =
        new Placement(
            new Placement.Release("a", "", content, List.of()),
            null,
            Path.of("a"),
            Placement.Made.NOTHING,
            null);
    Standing.Owner owner =
        new Standing.Owner(placement, number, "", Swap.LIVE, new TreeMap<>(), List.of());
    releases().prune(limits, Standing.NONE.with(owner));
  }

  private List<Integer> kept() {
    return releases().all().stream().map(EarlierRelease::delivery).toList();
  }

  /** As it was kept before a check parted what is sent from what is expected. */
  @Test
  void whatAnEarlierVersionKeptIsReadStill() {
    String check =
        "{\"name\":\"c\",\"method\":\"POST\",\"path\":\"/x\",\"body\":{\"a\":1},\"status\":201,"
            + "\"text\":\"t\",\"json\":{\"/a\":2},\"within\":\"PT1S\",\"user\":\"anna\","
            + "\"fromHost\":true}";
    delivered(1, 0, "one", Keeping.USUAL);
    Path document = folder.resolve("releases/1.json");
    String kept = new String(files.whole(document, 1 << 20), StandardCharsets.UTF_8);
    assertThat(kept).contains("\"checks\":[]");
    files.put(
        document,
        Content.of(kept.replace("\"checks\":[]", "\"checks\":[" + check + "]")),
        files.facts(document).access());
    Check read = releases().of(1).orElseThrow().described().checks().get(0);
    Check.Request request = read.first();
    assertThat(request.ask())
        .isEqualTo(
            new Ask(
                "POST",
                "/x",
                Map.of(),
                Optional.of(Ask.Sent.json(Json.read("{\"a\":1}", JsonNode.class).orElseThrow())),
                Optional.of("anna")));
    assertThat(request.expect().status().holds(201)).isTrue();
    assertThat(request.expect().status().holds(200)).isFalse();
    assertThat(request.expect().body().text()).contains("t");
    assertThat(request.expect().within()).contains(Duration.ofSeconds(1));
    assertThat(read.manner().fromHost()).isTrue();
  }

  @Test
  void goingToAndFroKeepsNoMoreThanTwo() {
    delivered(1, 0, "one", Keeping.USUAL);
    delivered(2, 0, "two", Keeping.USUAL);
    for (int number = 3; number < 40; number++) {
      delivered(number, 2 - number % 2, number % 2 == 1 ? "one" : "two", Keeping.USUAL);
    }
    assertThat(kept()).containsExactly(1, 2, 39);
  }

  @Test
  void theOldestGoesFirst() {
    Keeping two = new Keeping(ServerLog.USUAL, 2, 1000);
    for (int number = 1; number <= 5; number++) {
      delivered(number, 0, "release " + number, two);
    }
    assertThat(kept()).containsExactly(3, 4, 5);
    delivered(6, 0, "release 3", two);
    assertThat(kept()).containsExactly(4, 5, 6);
    delivered(7, 0, "release 7", new Keeping(ServerLog.USUAL, 9, 25));
    assertThat(kept()).containsExactly(6, 7);
  }
}
