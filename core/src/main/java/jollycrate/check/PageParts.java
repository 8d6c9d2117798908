package jollycrate.check;

import java.net.URI;
import java.net.URISyntaxException;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.app.Statuses;
import jollycrate.server.Cause;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;

/**
 * What a page refers to on its own server: style sheets, scripts, pictures, fonts and links. Each
 * is asked for once; what a style sheet refers to is, too. Where nothing came back once, nothing is
 * waited for again.
 *
 * @param base address of the application, ending in a slash
 * @param session as whom all of it is asked
 * @param depth how many pages deep links are followed
 */
record PageParts(Requester requester, URI base, Requester.Session session, int depth) {
  private static final Duration LIMIT = Duration.ofSeconds(30);
  private static final Duration BEGINS_WITHIN = Duration.ofSeconds(5);
  private static final int AT_ONCE = 6;
  private static final int MOST = 400;
  private static final int MOST_TOLD = 8;
  private static final int ERROR = 400;
  private static final Pattern IN_STYLES =
      Pattern.compile("url\\(\\s*['\"]?([^'\")]+)['\"]?\\s*\\)|@import\\s+['\"]([^'\"]+)['\"]");
  private static final String LINKS = "a[href], area[href]";

  /** Elements that refer to something, and the attributes by which they do. */
  private static final List<By> PARTS =
      List.of(
          new By("link[rel~=(?i)stylesheet|icon|preload|modulepreload|manifest]", "href", Use.PART),
          new By("script, img, source, video, audio, track", "src", Use.PART),
          new By("input[type=image]", "src", Use.PART),
          new By("img, source", "srcset", Use.PART),
          new By("video", "poster", Use.PART),
          new By("iframe, embed", "src", Use.FRAME),
          new By("object", "data", Use.FRAME));

  /** What is done with something that is referred to. */
  private enum Use {
    /** It is no page, and the page is not whole without it. */
    PART,
    /** It may be a page of its own within the page. */
    FRAME,
    /** One goes there. */
    LINK
  }

  /** How elements refer to something. */
  private record By(String elements, String attribute, Use use) {}

  /**
   * Something that is referred to.
   *
   * @param from path of who refers to it
   * @param pages how many pages deep it is followed
   */
  private record Part(URI url, String from, Use use, int pages) {}

  /** The result of a page, with what is missing of it. */
  CheckResult of(URI url, Answer page, CheckResult passed) {
    Search search = new Search();
    search.add(referred(url, page.text(), depth));
    try (AtOnce threads = new AtOnce(AT_ONCE, "page part")) {
      while (search.goesOn()) {
        List<Part> wave = search.next();
        List<Supplier<Answer>> answers =
            wave.stream().map(part -> threads.begin(() -> ask(part))).toList();
        for (int i = 0; i < wave.size(); i++) {
          look(wave.get(i), answers.get(i).get(), search);
        }
      }
    }
    int all = search.parts.size();
    return search.missing.isEmpty()
        ? passed.asking(passed.request() + counted(all))
        : passed.missing(told(search.misses), cause(url, search.missing, all));
  }

  private static String counted(int parts) {
    return parts == 0 ? "" : " and its " + parts + (parts == 1 ? " part" : " parts");
  }

  private Answer ask(Part part) {
    return requester.send(
        Requester.Request.get(part.url(), session), part.use() == Use.LINK ? BEGINS_WITHIN : LIMIT);
  }

  private void look(Part part, Answer answer, Search search) {
    search.answering &= answer.came() || answer.why() == Answer.Why.ENDLESS;
    Optional<String> got = instead(part, answer);
    if (got.isPresent()) {
      String asked = "an answer, as " + part.from() + " refers to it";
      search.missing.add(part);
      search.misses.add(new CheckResult.Miss(part.url().getRawPath(), asked, got.get()));
    } else if (part.use() == Use.PART && answer.type().startsWith("text/css")) {
      search.add(inStyles(part.url().toString(), part.url(), answer.text()));
    } else if (part.pages() > 0
        && answer.type().startsWith("text/html")
        && Statuses.SUCCESS.holds(answer.status())) {
      search.add(referred(part.url(), answer.text(), part.pages()));
    }
  }

  /** What was found so far. */
  private static final class Search {
    private final Map<URI, Part> parts = new HashMap<>();
    private final Deque<Part> toAsk = new ArrayDeque<>();
    private final List<Part> missing = new ArrayList<>();
    private final List<CheckResult.Miss> misses = new ArrayList<>();
    private boolean answering = true;

    private void add(List<Part> found) {
      for (Part part : found) {
        if (parts.size() < MOST && parts.putIfAbsent(part.url(), part) == null) {
          toAsk.add(part);
        }
      }
    }

    private boolean goesOn() {
      return answering && !toAsk.isEmpty();
    }

    private List<Part> next() {
      List<Part> wave = new ArrayList<>();
      while (wave.size() < AT_ONCE && !toAsk.isEmpty()) {
        wave.add(toAsk.remove());
      }
      return wave;
    }
  }

  /**
   * What came in place of something; empty when that came. Whoever may not go somewhere is told so
   * there: that is an answer to a link, and so is one that never ends, as of a stream. A page in
   * place of a part is what single-page applications answer for everything that is not there.
   */
  private static Optional<String> instead(Part part, Answer answer) {
    if (part.use() == Use.LINK && answer.why() == Answer.Why.ENDLESS) {
      return Optional.empty();
    }
    if (!answer.came()) {
      return Optional.of(answer.failure());
    }
    boolean closed = answer.status() == 401 || answer.status() == 403;
    if (answer.status() >= ERROR && !(part.use() == Use.LINK && closed)) {
      return Optional.of("" + answer.status());
    }
    return part.use() == Use.PART && answer.type().startsWith("text/html")
        ? Optional.of(answer.status() + ", but a page (text/html)")
        : Optional.empty();
  }

  private static List<CheckResult.Miss> told(List<CheckResult.Miss> misses) {
    if (misses.size() <= MOST_TOLD) {
      return misses;
    }
    List<CheckResult.Miss> told = new ArrayList<>(misses.subList(0, MOST_TOLD));
    int more = misses.size() - MOST_TOLD;
    told.add(new CheckResult.Miss("and " + more + " more", "an answer each", "none"));
    return told;
  }

  /**
   * What a page refers to.
   *
   * @param pages how many pages deep links are followed, this one being the first
   */
  private List<Part> referred(URI url, String html, int pages) {
    Document page = BodyText.page(html, url);
    List<Part> parts = new ArrayList<>();
    for (By by : PARTS) {
      for (Element element : page.select(by.elements())) {
        targets(element, by.attribute())
            .flatMap(target -> here(target, url, by.use(), 0).stream())
            .forEach(parts::add);
      }
    }
    for (Element style : page.select("style")) {
      parts.addAll(inStyles(page.baseUri(), url, style.data()));
    }
    for (Element link : page.select(LINKS)) {
      here(link.absUrl("href"), url, Use.LINK, pages - 1)
          .filter(part -> part.url().getPath().startsWith(base.getPath()))
          .ifPresent(parts::add);
    }
    return parts;
  }

  /** Of a set of pictures each is told with its size behind it (HTML, srcset). */
  private static Stream<String> targets(Element element, String attribute) {
    if (!element.hasAttr(attribute)) {
      return Stream.empty();
    }
    if (!attribute.equals("srcset")) {
      return Stream.of(element.absUrl(attribute));
    }
    return Arrays.stream(element.attr(attribute).split(",\\s+|,$"))
        .map(candidate -> candidate.strip().split("\\s+")[0])
        .filter(picture -> !picture.isEmpty())
        .flatMap(picture -> resolved(element.baseUri(), picture).stream());
  }

  private static List<Part> inStyles(String from, URI url, String styles) {
    List<Part> parts = new ArrayList<>();
    Matcher reference = IN_STYLES.matcher(styles);
    while (reference.find()) {
      String target = reference.group(1) == null ? reference.group(2) : reference.group(1);
      resolved(from, target.strip())
          .flatMap(found -> here(found, url, Use.PART, 0))
          .ifPresent(parts::add);
    }
    return parts;
  }

  /** Empty for what is no address. */
  /** A browser escapes what is no character of an address (URL Standard, 4.4). */
  private static String escaped(String target) {
    StringBuilder text = new StringBuilder();
    for (char c : target.toCharArray()) {
      text.append(" \"<>\\^`{|}".indexOf(c) < 0 ? "" + c : String.format("%%%02X", (int) c));
    }
    return text.toString();
  }

  private static Optional<String> resolved(String from, String target) {
    try {
      return Optional.of(new URI(from).resolve(new URI(escaped(target))).toString());
    } catch (URISyntaxException noAddress) {
      return Optional.empty();
    }
  }

  /** What stands on the same server, without a fragment. */
  private static Optional<Part> here(String target, URI from, Use use, int pages) {
    try {
      URI url = new URI(escaped(target));
      boolean same =
          from.getScheme().equals(url.getScheme())
              && from.getAuthority().equals(url.getAuthority())
              && url.getRawPath() != null;
      String bare = target.replaceFirst("#.*", "");
      return same
          ? Optional.of(new Part(new URI(bare), from.getRawPath(), use, pages))
          : Optional.empty();
    } catch (URISyntaxException noAddress) {
      return Optional.empty();
    }
  }

  /** The classic is told as such: built for the root, and served below a context path. */
  private Cause cause(URI url, List<Part> missing, int all) {
    String count = missing.size() + " of " + all + " parts of the page are missing";
    String path = base.getPath();
    boolean forTheRoot = missing.stream().noneMatch(part -> part.url().getPath().startsWith(path));
    return forTheRoot
        ? Verdict.builtForTheRoot(url, base, count + ": they are asked for at /")
        : new Cause(
            count, url.toString(), List.of(), "Compare what the page refers to with 'web'", -1);
  }
}
