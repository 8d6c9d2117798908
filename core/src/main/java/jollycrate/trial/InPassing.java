package jollycrate.trial;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Consumer;
import java.util.function.Function;
import jollycrate.app.Application;
import jollycrate.app.Descriptions;
import jollycrate.app.NotDescribedException;
import jollycrate.app.PackChoice;
import jollycrate.app.PackDescription;
import jollycrate.app.Setting;
import jollycrate.build.Asking;
import jollycrate.build.Drivers;
import jollycrate.build.Packing;
import jollycrate.delivery.DeliveryService;
import jollycrate.file.Digests;
import jollycrate.file.Trees;
import jollycrate.host.Access;
import jollycrate.host.Host;
import jollycrate.host.Time;
import jollycrate.journal.Lock;
import jollycrate.journal.LockedException;
import jollycrate.pack.PackWatch;
import jollycrate.pack.Shape;
import jollycrate.site.ServerFoundation;
import jollycrate.site.Sites;
import jollycrate.watch.Interrupts;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;

/** What runs on scratch servers and leaves nothing behind. */
public final class InPassing {
  private final Host host;
  private final Setting setting;
  private final Descriptions descriptions;
  private final ServerFoundation foundation;
  private final Sites sites;
  private final BiFunction<Site, Progress, DeliveryService> deliveries;
  private final Interrupts interrupts;

  public InPassing(
      Host host,
      Setting setting,
      Descriptions descriptions,
      ServerFoundation foundation,
      Sites sites,
      BiFunction<Site, Progress, DeliveryService> deliveries,
      Interrupts interrupts) {
    this.host = host;
    this.setting = setting;
    this.descriptions = descriptions;
    this.foundation = foundation;
    this.sites = sites;
    this.deliveries = deliveries;
    this.interrupts = interrupts;
  }

  /**
   * Runs an application from its build output until it is interrupted, and leaves nothing behind.
   *
   * @param pack name of a {@code [pack.NAME]}; empty: what is delivered
   * @param http port to answer on; empty: the first free one from 8080
   */
  public void run(Optional<String> pack, Optional<Integer> http, LiveRun.Watch watch) {
    setting.mustHandleServers();
    int port = http.orElseGet(foundation::firstFreePort);
    boolean server = LiveRun.onServer(described(pack, LiveRun.NAME).shape());
    Path folder = setting.data().resolve("run").resolve(Digests.brief(projectDigest()));
    try {
      Files.createDirectories(folder);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    Access access = host.files().facts(folder).access().with("rw-------");
    try (Lock lock = Lock.take(host, Time.system(), folder.resolve("lock"), access, setting.by());
        Scratch scratch =
            Scratch.open(
                foundation,
                sites,
                LiveRun.NAME,
                folder.resolve("server"),
                !server,
                Optional.of(port))) {
      new LiveRun(name -> chosen(name, scratch, watch), watch, interrupts)
          .follow(pack, scratch, deliveries.apply(scratch.site(), watch), folder);
    } catch (LockedException e) {
      throw new LockedException(
          "Cannot run this application: another 'jolly run' of it is under way. End that one first");
    }
    Trees.discard(folder);
  }

  /** Delivers an application in every shape, each to a scratch place, and measures it there. */
  public List<ShapeRow> shapes(
      Function<Application, Packing> packings, Progress progress, Consumer<ShapeRow> done) {
    setting.mustHandleServers();
    Application application = Descriptions.atItsName(withPacks(ShapesTrial.NAME));
    Packing packing = packings.apply(application);
    Path folder = Trees.temporary();
    try {
      return new ShapesTrial(
              application,
              packing,
              (program, at) ->
                  Scratch.open(foundation, sites, ShapesTrial.NAME, at, program, Optional.empty()),
              deliveries)
          .rows(folder, progress, done);
    } finally {
      Trees.discard(folder);
    }
  }

  private String projectDigest() {
    return Digests.of(
        descriptions.application(Optional.empty()).file().orElseThrow().toString().getBytes(UTF_8));
  }

  private PackDescription described(Optional<String> pack, String server) {
    return PackChoice.chosen(withPacks(server), pack);
  }

  private Application read(String server) {
    Application written = descriptions.application(Optional.of(server));
    return Drivers.found(host, setting, written, new Asking(doing -> {}, interrupts::isAsked));
  }

  private Application withPacks(String server) {
    Application application = read(server);
    if (application.making().packs().isEmpty()) {
      throw new NotDescribedException(
          "Cannot run '"
              + application.name()
              + "' from its build output: "
              + application.file().orElseThrow()
              + " has no [pack] that says where that is");
    }
    return application;
  }

  private Packing.Chosen chosen(Optional<String> pack, Scratch scratch, LiveRun.Watch watch) {
    PackDescription described = described(pack, scratch.entry().name());
    PackDescription wanted =
        described.shape() == Shape.JAR_AND_LIBS ? described.in(Shape.MERGED_JAR) : described;
    Application read = read(scratch.entry().name());
    Application placed = described.shape().isWar() ? Descriptions.atItsName(read) : read;
    return new Packing(
            host,
            setting,
            placed,
            PackWatch.NONE,
            new Asking(watch::waitingFor, interrupts::isAsked))
        .chosen(wanted);
  }
}
