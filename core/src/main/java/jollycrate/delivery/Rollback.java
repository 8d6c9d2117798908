package jollycrate.delivery;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.app.Application;
import jollycrate.app.DataSource;
import jollycrate.file.Digests;
import jollycrate.file.IoReason;
import jollycrate.foresee.Finding;
import jollycrate.host.Content;
import jollycrate.host.HostException;
import jollycrate.journal.Deliveries;
import jollycrate.journal.DeliveryRecord;
import jollycrate.journal.EarlierRelease;
import jollycrate.journal.EarlierReleases;
import jollycrate.json.Json;
import jollycrate.server.Keys;
import jollycrate.server.Order;
import jollycrate.server.Standing;
import jollycrate.watch.Site;

/**
 * Finds a release that was delivered before, and brings back beside the tool what it is made of.
 */
final class Rollback {
  private static final int BLOCK = 1 << 20;

  private final Site site;
  private final EarlierReleases releases;
  private final Standing standing;

  Rollback(Site site) {
    this.site = site;
    this.releases = site.releases();
    this.standing = site.stockTaker().standing();
  }

  /** What has to be kept of an order, so that it can be delivered again; not numbered yet. */
  static EarlierRelease keepable(Order order, Source source) {
    Application application =
        order
            .application()
            .delivering(
                order.artifact().file(),
                Optional.of(order.version()).filter(version -> !version.isEmpty()));
    String description =
        source
            .restored()
            .map(EarlierRelease::description)
            .orElseGet(() -> Digests.of(Json.line(order.application()).getBytes(UTF_8)));
    return new EarlierRelease(
        0,
        source.restored().map(EarlierRelease::origin).orElse(0),
        application,
        description,
        source.revision(),
        order.onAdminPort(),
        order.unfolded().isPresent() ? List.of() : originals(order, application));
  }

  private static List<EarlierRelease.Original> originals(Order order, Application application) {
    List<EarlierRelease.Original> originals = new ArrayList<>();
    Path artifact = order.artifact().file();
    originals.add(
        new EarlierRelease.Original(artifact, order.artifact().digest(), order.artifact().size()));
    for (Path file : application.files()) {
      if (!file.equals(artifact) && Files.isRegularFile(file)) {
        Content content = Content.of(file);
        originals.add(new EarlierRelease.Original(file, content.digest(), content.size()));
      }
    }
    return List.copyOf(originals);
  }

  /**
   * The release to go back to.
   *
   * @param here tells which application, unless a number does; else the only one there
   * @param number of its delivery; empty: the one before what stands
   * @throws NotDeliveredException with the reason and what could be chosen
   */
  EarlierRelease chosen(DescribedHere here, Optional<Integer> number) {
    return number.isPresent()
        ? numbered(number.get())
        : before(here.application().orElseGet(this::onlyOne));
  }

  private String onlyOne() {
    List<String> names =
        releases.all().stream().map(EarlierRelease::application).distinct().toList();
    if (names.size() != 1) {
      throw cannot("", "no application is named, by a jolly.toml here or by a delivery's number");
    }
    return names.get(0);
  }

  private EarlierRelease numbered(int number) {
    return releases
        .of(number)
        .orElseThrow(
            () ->
                cannot(
                    "to delivery " + number,
                    new Deliveries(site.files(), site.records().deliveries())
                        .all().stream()
                            .filter(record -> record.delivery() == number)
                            .findFirst()
                            .map(this::whyNotKept)
                            .orElse("there was none of that number")));
  }

  private String whyNotKept(DeliveryRecord record) {
    return switch (record.outcome()) {
      case "taken back" -> "it was taken back, so its release never stood";
      case "removed" -> "it took the application away";
      default ->
          "its release is not kept any more ('earlier-releases' and 'earlier-space' in servers.toml"
              + " say how many are)";
    };
  }

  private EarlierRelease before(String application) {
    List<EarlierRelease> all =
        releases.all().stream()
            .filter(release -> release.application().equals(application))
            .toList();
    Optional<Integer> stands = standing.owner(application).map(Standing.Owner::delivery);
    Optional<EarlierRelease> now = stands.flatMap(releases::of);
    int origin = now.map(EarlierRelease::origin).or(() -> stands).orElse(Integer.MAX_VALUE);
    return all.stream()
        .filter(release -> release.delivery() < origin)
        .filter(release -> now.filter(release::isAlike).isEmpty())
        .reduce((earlier, later) -> later)
        .orElseThrow(
            () ->
                cannot(
                    "'" + application + "'",
                    stands.isPresent()
                        ? "no release is kept that stood before the one that stands now"
                        : "it does not stand there, and no release of it is kept"));
  }

  private NotDeliveredException cannot(String what, String why) {
    String kept =
        releases.all().stream()
            .map(
                release ->
                    release.delivery()
                        + " ("
                        + (release.application() + " " + release.version()).strip()
                        + ")")
            .reduce((one, other) -> one + ", " + other)
            .map(numbers -> "Kept are those of deliveries " + numbers)
            .orElse("None is kept on this server yet: the next delivery begins that");
    return new NotDeliveredException(
        ("Cannot roll back " + what).strip()
            + " on '"
            + site.server().name()
            + "': "
            + why
            + ". "
            + kept);
  }

  /**
   * The application as it was described then, with its files in a folder beside the tool.
   *
   * @param here references start from the file that describes it now
   */
  Application broughtBack(EarlierRelease release, Path folder, DescribedHere here) {
    Map<Path, Path> places = new HashMap<>();
    for (EarlierRelease.Original file : release.files()) {
      Path place = folder.resolve("" + places.size()).resolve(file.path().getFileName());
      bringBack(release, file, place);
      places.put(file.path(), place);
    }
    Application described = release.described();
    return described.movedTo(
        here.of(described.name()).or(described::file), path -> places.getOrDefault(path, path));
  }

  private void bringBack(EarlierRelease release, EarlierRelease.Original file, Path place) {
    Path from = where(file);
    try {
      Files.createDirectories(place.getParent());
      try (OutputStream out = Files.newOutputStream(place)) {
        long offset = 0;
        for (byte[] block = site.files().read(from, 0, BLOCK); block.length > 0; ) {
          out.write(block);
          offset += block.length;
          block = site.files().read(from, offset, BLOCK);
        }
      }
      if (!Digests.of(place).equals(file.digest())) {
        throw cannot(
            "to delivery " + release.delivery(),
            "'"
                + site.server().shown(from)
                + "' is not as it was delivered then, or is gone (it was "
                + file.path().getFileName()
                + ")");
      }
    } catch (IOException e) {
      throw new HostException("Cannot bring back '" + from + "': " + IoReason.of(e));
    }
  }

  /** Among what is kept, or where it stands. */
  private Path where(EarlierRelease.Original file) {
    Path kept = releases.file(file.digest());
    return site.files().facts(kept).isFile()
        ? kept
        : standing.pieces().entrySet().stream()
            .filter(piece -> piece.getValue().digest().equals(file.digest()))
            .map(piece -> Keys.path(site.server(), piece.getKey()))
            .findFirst()
            .orElse(kept);
  }

  /** Where what is delivered again comes from, and what does not come back with it. */
  Source source(EarlierRelease release) {
    Optional<DeliveryRecord> record =
        new Deliveries(site.files(), site.records().deliveries())
            .all().stream().filter(line -> line.delivery() == release.delivery()).findFirst();
    Finding back =
        Finding.note(
            "delivery " + release.delivery(),
            "comes back as it was described and packed then"
                + record
                    .map(
                        line ->
                            ", at "
                                + line.at().truncatedTo(ChronoUnit.SECONDS)
                                + " by "
                                + line.by())
                    .orElse(""));
    Stream<Finding> databases =
        release.described().dataSources().stream()
            .map(DataSource::jndiName)
            .map(
                name ->
                    Finding.note(
                        name,
                        "its database stays as it is now: what newer releases wrote or changed"
                            + " there is not rolled back"));
    return new Source(
        release.revision(),
        Stream.concat(Stream.of(back), databases).toList(),
        Optional.of(release));
  }
}
