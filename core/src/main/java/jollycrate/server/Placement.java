package jollycrate.server;

import com.fasterxml.jackson.annotation.JsonUnwrapped;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.stream.Stream;
import jollycrate.app.Ports;
import jollycrate.json.MayLack;

/**
 * A release at a path on a listener of a server.
 *
 * @param release what answers there
 * @param route where it answers
 * @param switchPath the file that makes it live
 * @param made what the server makes by itself for it
 * @param timing how long it may take
 */
public record Placement(
    @JsonUnwrapped Release release,
    @JsonUnwrapped Route route,
    Path switchPath,
    @JsonUnwrapped Made made,
    @JsonUnwrapped Timing timing) {
  /** The listener that answers what people ask. */
  public static final String MAIN = "main";

  /** The listener that answers on loopback only. */
  public static final String ADMIN = "admin";

  /**
   * A version of an application.
   *
   * @param version may be empty
   * @param digest SHA-256 of its artifact
   * @param packages of its own classes, to find it in stack traces
   */
  public record Release(String application, String version, String digest, List<String> packages) {}

  /**
   * A path on a listener.
   *
   * @param listener {@link #MAIN}, {@link #ADMIN}, or the name of a virtual host
   * @param contextPath empty for the root
   * @param base its address, ending in a slash
   * @param direct the same without a web server before it
   */
  public record Route(String listener, String contextPath, URI base, URI direct) {
    /** Part by part: a method that Java derives for a record is made at run time, at each start. */
    private boolean isAs(Route other) {
      return listener.equals(other.listener)
          && contextPath.equals(other.contextPath)
          && base.equals(other.base)
          && direct.equals(other.direct);
    }

    /** Where people open it. */
    public String address() {
      String text = base.toString();
      return contextPath.isEmpty() ? text : text.substring(0, text.length() - 1);
    }

    /** Of a server that has a main listener, and may have an admin one and virtual hosts. */
    public static Route at(String listener, String contextPath, Ports ports) {
      String path = contextPath + "/";
      URI main = ports.at(path);
      return switch (listener) {
        case MAIN -> new Route(listener, contextPath, ports.publicly(path), main);
        case ADMIN -> {
          URI admin = ports.atAdmin(path).orElse(main);
          yield new Route(listener, contextPath, admin, admin);
        }
        default -> new Route(listener, contextPath, ports.atHost(listener, path), main);
      };
    }
  }

  /**
   * Paths that a server makes by itself for a placement.
   *
   * @param traces those that it takes away when the placement goes
   * @param leftovers those that it leaves behind; they go once the placement is gone
   * @param marks files whose text tells what became of the placement; older ones than its switch
   *     tell nothing, and all go once it is gone
   */
  public record Made(List<Path> traces, @MayLack List<Path> leftovers, @MayLack List<Path> marks) {
    /** It makes none. */
    public static final Made NOTHING = new Made(List.of(), List.of(), List.of());

    /** It takes away all that it makes. */
    public static Made of(List<Path> traces) {
      return new Made(traces, List.of(), List.of());
    }

    /** What stays there when the placement is gone. */
    public List<Path> stays() {
      return Stream.concat(leftovers.stream(), marks.stream()).toList();
    }

    /** Everything. */
    public List<Path> all() {
      return Stream.concat(traces.stream(), stays().stream()).toList();
    }
  }

  /**
   * How long a placement may take.
   *
   * @param notice longest time until the running server looks at the switch again
   * @param startsWithin longest time it may take to start
   */
  public record Timing(Duration notice, Duration startsWithin) {
    private boolean isAs(Timing other) {
      return notice.equals(other.notice) && startsWithin.equals(other.startsWithin);
    }
  }

  /** The same, asked without the web server before it. */
  public Placement directly() {
    Route straight = new Route(route.listener, route.contextPath, route.direct, route.direct);
    return new Placement(release, straight, switchPath, made, timing);
  }

  /** The same, reached by people through a web server before it. */
  public Placement behind(URI proxy) {
    URI through = proxy.resolve(route.direct.getRawPath());
    Route before = new Route(route.listener, route.contextPath, through, route.direct);
    return new Placement(release, before, switchPath, made, timing);
  }

  /** The same where its listener is now, of a server that has a main one and an admin one. */
  public Placement on(Ports ports) {
    return new Placement(
        release, Route.at(route.listener, route.contextPath, ports), switchPath, made, timing);
  }

  /** Whether it answers elsewhere, or may take another time to start. */
  public boolean isToldOtherwise(Placement other) {
    return !route.isAs(other.route) || !timing.isAs(other.timing);
  }

  /** Name of its application. */
  public String application() {
    return release.application;
  }

  /** Where people open it. */
  public String address() {
    return route.address();
  }
}
