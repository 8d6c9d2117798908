package jollycrate.site;

import java.net.HttpURLConnection;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.check.Answer;
import jollycrate.check.Requester;
import jollycrate.host.Bean;
import jollycrate.host.Fact;
import jollycrate.host.Identity;
import jollycrate.host.Question;
import jollycrate.server.Answers;
import jollycrate.server.Inside;
import jollycrate.server.Occupant;
import jollycrate.server.Placement;
import jollycrate.server.Running;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.watch.Site;

/**
 * The applications of one server, as it knows them and as a request sees them.
 *
 * @param pid 0 when it does not run, or that is not known
 * @param memory resident bytes of its process
 * @param threads of it; empty when not told
 * @param since when it was started; empty when not told
 * @param untold why the server itself tells nothing; empty when it does
 */
public record ServerApps(
    String server,
    String kind,
    long pid,
    long memory,
    Optional<Long> threads,
    Optional<Instant> since,
    String untold,
    List<App> apps) {
  private static final Duration ANSWERS_WITHIN = Duration.ofSeconds(5);
  private static final String JVM = "java.lang";

  /**
   * One of them.
   *
   * @param name as it was delivered; empty when somebody else put it there
   * @param version as delivered; may be empty
   * @param state in the server's own words; empty when not told
   * @param answer status of its root, 0 when nothing came
   * @param problem why nothing came
   * @param ours whether it was delivered by us
   */
  public record App(
      String name,
      String version,
      String listener,
      String contextPath,
      String address,
      String state,
      int answer,
      String problem,
      Optional<Long> sessions,
      List<Inside.Pool> pools,
      boolean ours) {}

  /** Looks, and asks the process and each application; nothing is changed. */
  public static ServerApps of(Site site) {
    Stock stock = site.stockTaker().take(List.of());
    Optional<Identity> process = stock.process().found().map(Running::identity);
    Fact<Answers> answers = process.map(found -> ask(site, found)).orElse(notAsked(stock));
    Answers told = answers.orElse(Answers.NONE);
    return new ServerApps(
        site.server().name(),
        site.traits().label(),
        process.map(Identity::pid).orElse(0L),
        process.map(site.host().processes()::memory).orElse(0L),
        jvm(told.beans(), "Threading", "ThreadCount"),
        jvm(told.beans(), "Runtime", "StartTime").map(Instant::ofEpochMilli),
        answers.unread().orElse(""),
        apps(site, stock, site.kind().inside(stock, told)));
  }

  private static Fact<Answers> notAsked(Stock stock) {
    return Fact.unknown(stock.process().unread().orElse("it does not run"));
  }

  private static Fact<Answers> ask(Site site, Identity process) {
    Map<String, String> pages = pages(site);
    List<Question> questions = new ArrayList<>(site.kind().questions());
    if (!questions.isEmpty()) {
      questions.add(new Question(JVM + ":type=Threading", List.of("ThreadCount")));
      questions.add(new Question(JVM + ":type=Runtime", List.of("StartTime")));
      Fact<List<Bean>> beans = site.host().processes().beans(process, questions);
      return beans.unread().isPresent()
          ? Fact.unknown(beans.unread().get())
          : Fact.known(new Answers(beans.orElse(List.of()), pages));
    }
    if (site.kind().pages().isEmpty()) {
      return Fact.unknown("servers of its kind are not asked");
    }
    return pages.isEmpty()
        ? Fact.unknown("its page " + site.kind().pages().get(0) + " does not answer")
        : Fact.known(new Answers(List.of(), pages));
  }

  private static Map<String, String> pages(Site site) {
    Map<String, String> pages = new LinkedHashMap<>();
    for (String path : site.kind().pages()) {
      Answer answer = site.ask(site.server().ports().at(path), ANSWERS_WITHIN);
      if (answer.status() == HttpURLConnection.HTTP_OK) {
        pages.put(path, answer.body().text());
      }
    }
    return pages;
  }

  private static Optional<Long> jvm(List<Bean> beans, String type, String attribute) {
    return beans.stream()
        .filter(bean -> bean.domain().equals(JVM) && bean.key("type").equals(type))
        .findFirst()
        .flatMap(bean -> bean.number(attribute));
  }

  /** A path in the words of listener and context. */
  private record At(String listener, String contextPath) {}

  private static List<App> apps(Site site, Stock stock, List<Inside> inside) {
    List<App> apps = new ArrayList<>();
    Stream.concat(
            inside.stream().map(one -> new At(one.listener(), one.contextPath())),
            Stream.concat(
                stock.standing().applications().stream()
                    .map(Standing.Owner::placement)
                    .map(one -> new At(one.route().listener(), one.route().contextPath())),
                site.kind().occupants(stock).stream().filter(Occupant::served).map(ServerApps::at)))
        .distinct()
        .sorted((a, b) -> a.contextPath().compareTo(b.contextPath()))
        .forEach(at -> apps.add(app(site, stock, at, inside)));
    return apps;
  }

  private static At at(Occupant occupant) {
    return new At(occupant.listener(), occupant.contextPath());
  }

  private static App app(Site site, Stock stock, At at, List<Inside> inside) {
    Optional<Placement> placement =
        stock.standing().applications().stream()
            .map(Standing.Owner::placement)
            .map(site::addressed)
            .filter(one -> at.equals(new At(one.route().listener(), one.route().contextPath())))
            .findFirst();
    Optional<Inside> told =
        inside.stream()
            .filter(one -> at.equals(new At(one.listener(), one.contextPath())))
            .findFirst();
    Placement.Route route =
        placement
            .map(Placement::route)
            .orElseGet(
                () -> Placement.Route.at(at.listener(), at.contextPath(), site.server().ports()));
    Answer answer = answer(site, route);
    return new App(
        placement.map(Placement::application).orElse(""),
        placement.map(one -> one.release().version()).orElse(""),
        at.listener(),
        at.contextPath(),
        route.address(),
        told.map(Inside::state).orElse(stopped(stock, placement) ? "stopped" : ""),
        answer.status(),
        answer.failure(),
        told.flatMap(Inside::sessions),
        told.map(Inside::pools).orElse(List.of()),
        placement.isPresent());
  }

  private static boolean stopped(Stock stock, Optional<Placement> placement) {
    return placement
        .flatMap(at -> stock.standing().owner(at.application()))
        .filter(Standing.Owner::isStopped)
        .isPresent();
  }

  private static Answer answer(Site site, Placement.Route route) {
    try (Requester requester = site.requesters().get()) {
      if (site.traits().hosts()) {
        requester.leads(route.base().getHost(), route.direct().getHost());
      }
      return requester.send(Requester.Request.get(route.base()), ANSWERS_WITHIN);
    }
  }
}
