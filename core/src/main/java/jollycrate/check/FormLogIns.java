package jollycrate.check;

import java.net.URI;
import java.net.URISyntaxException;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Ask;
import jollycrate.app.Statuses;
import org.jsoup.nodes.Element;

/**
 * Logs people in as they would do it: the form that a page shows is filled in and sent. Its hidden
 * fields go along, as the ones against forged requests are.
 */
final class FormLogIns {
  private static final Duration LIMIT = Duration.ofSeconds(30);
  private static final int MOST_REDIRECTS = 5;
  private static final int ERROR = 400;
  private static final String PASSWORD = "input[type=password]";
  private static final String NAMES = "input[type=text], input[type=email], input:not([type])";

  private final Requester requester;
  private final URI base;
  private final People people;

  FormLogIns(Requester requester, URI base, People people) {
    this.requester = requester;
    this.base = base;
    this.people = people;
  }

  /** What came instead of letting somebody in; empty when that worked. */
  Optional<String> refused(String user, String path, Requester.Session session) {
    URI first = URI.create(base + path.substring(1));
    Page page = followed(new Page(first, send(Requester.Request.get(first, session))), session);
    Optional<Element> form = page.form();
    if (!page.answer().came()) {
      return Optional.of(page.shown());
    }
    if (form.isEmpty()) {
      return Optional.of(page.shown() + " shows no form with a field for a password");
    }
    String target = form.get().attr("action");
    Optional<URI> action =
        target.isEmpty() ? Optional.of(page.url()) : here(form.get().absUrl("action"));
    if (action.isEmpty()) {
      return Optional.of("the form would send the password elsewhere: " + target);
    }
    Requester.Request sent =
        new Requester.Request(
            "POST",
            action.get(),
            Map.of(),
            Optional.of(new Ask.Sent(Optional.empty(), filled(form.get(), user), List.of())),
            session);
    Page after = followed(new Page(action.get(), send(sent)), session);
    boolean out = after.answer().status() >= ERROR || !after.answer().came();
    return out || after.form().isPresent()
        ? Optional.of(after.shown() + (out ? "" : " shows the form again"))
        : Optional.empty();
  }

  private Map<String, String> filled(Element form, String user) {
    Map<String, String> fields = new LinkedHashMap<>();
    form.select("input[type=hidden]").forEach(one -> fields.put(one.attr("name"), one.val()));
    Optional.ofNullable(form.select(NAMES).first())
        .ifPresent(name -> fields.put(name.attr("name"), user));
    fields.put(form.selectFirst(PASSWORD).attr("name"), people.secrets().get(user));
    return fields;
  }

  private Answer send(Requester.Request request) {
    return requester.send(request, LIMIT);
  }

  private Page followed(Page begin, Requester.Session session) {
    Page page = begin;
    for (int i = 0; i < MOST_REDIRECTS; i++) {
      String to = page.answer().header("Location");
      if (!Statuses.REDIRECTION.holds(page.answer().status()) || to.isEmpty()) {
        return page;
      }
      Optional<URI> next = resolved(page.url(), to);
      if (next.isEmpty()) {
        return page;
      }
      page = new Page(next.get(), send(Requester.Request.get(next.get(), session)));
    }
    return page;
  }

  private Optional<URI> resolved(URI from, String to) {
    try {
      return here(from.resolve(new URI(to)).toString());
    } catch (URISyntaxException noAddress) {
      return Optional.empty();
    }
  }

  /** An address on the application's own server, without a fragment; empty for any other. */
  private Optional<URI> here(String target) {
    try {
      URI url = new URI(target.replaceFirst("#.*", ""));
      boolean same =
          base.getScheme().equals(url.getScheme())
              && base.getAuthority().equals(url.getAuthority());
      return Optional.of(url).filter(found -> same);
    } catch (URISyntaxException noAddress) {
      return Optional.empty();
    }
  }

  /** What came from an address. */
  private record Page(URI url, Answer answer) {
    Optional<Element> form() {
      return BodyText.page(answer.text(), url).select("form").stream()
          .filter(form -> form.selectFirst(PASSWORD) != null)
          .findFirst();
    }

    String shown() {
      return answer.came()
          ? url.getRawPath() + " (" + answer.status() + ")"
          : url.getRawPath() + ": " + answer.failure();
    }
  }
}
