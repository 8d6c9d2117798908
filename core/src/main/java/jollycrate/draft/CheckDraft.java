package jollycrate.draft;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.dataformat.yaml.YAMLMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.app.Application;
import jollycrate.app.ApplicationFile;
import jollycrate.app.Check;
import jollycrate.app.NotDescribedException;
import jollycrate.app.User;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ZipArchive;
import jollycrate.check.CheckResult;
import jollycrate.file.IoReason;
import jollycrate.file.SmallFile;
import jollycrate.json.Json;
import jollycrate.secret.Reference;

/** Adds checks to {@code jolly.toml} that follow from what stands there. */
public final class CheckDraft {
  private static final long MOST_BYTES = 64 << 20;
  private static final int MOST = 40;

  /** What may stand in a request as it is (RFC 3986), without what names a value of ours. */
  private static final Pattern PATH = Pattern.compile("/[\\w.~!$&'()*+,;=:@/?%-]*");

  private final Path file;
  private final Application application;
  private final Function<Reference, String> values;

  /**
   * @param file {@code jolly.toml}
   * @param application that it describes
   */
  public CheckDraft(Path file, Application application, Function<Reference, String> values) {
    this.file = file;
    this.application = application;
    this.values = values;
  }

  /**
   * What checks are made from.
   *
   * @param artifact the application, packed; empty where there is none
   * @param openApi description of its interface, in JSON or YAML
   * @param har what a browser asked for, in JSON
   */
  public record Sources(Optional<Path> artifact, Optional<Path> openApi, Optional<Path> har) {}

  /**
   * What was added.
   *
   * @param leftOut what does not hold as the application runs now, and what came
   */
  public record Added(String file, List<Draft.Found> checks, List<String> leftOut) {}

  /**
   * Adds what is not checked yet.
   *
   * @param tried what comes of checks against the running application; empty: they are not tried
   * @throws NotDescribedException when a source cannot be read
   */
  public Added add(Sources sources, Optional<Function<Application, List<CheckResult>>> tried) {
    List<Candidate> fresh = fresh(sources);
    List<String> leftOut = new ArrayList<>();
    if (tried.isPresent() && !fresh.isEmpty()) {
      fresh = holding(fresh, tried.get(), leftOut);
    }
    try {
      String before = Files.readString(file);
      String added = fresh.stream().map(Candidate::text).collect(Collectors.joining());
      if (!fresh.isEmpty()) {
        replace(before.stripTrailing() + "\n" + added);
      }
    } catch (IOException e) {
      throw cannot(file, IoReason.of(e));
    }
    return new Added(
        file.toString(),
        fresh.stream().map(one -> new Draft.Found(kind(one), one.path(), one.where())).toList(),
        leftOut);
  }

  private static String kind(Candidate one) {
    return one.lines().get(0).equals("[[access]]") ? "access" : one.lines().get(2).split(" ")[0];
  }

  private List<Candidate> fresh(Sources sources) {
    String base = application.context().path().orElse("/").replaceFirst("/$", "");
    Set<String> asked =
        application.checks().stream()
            .flatMap(check -> check.requests().stream())
            .map(request -> request.ask().path())
            .collect(Collectors.toSet());
    Stream<Candidate> all =
        Stream.of(
                sources.artifact().map(this::declared).orElse(List.of()),
                sources
                    .openApi()
                    .map(at -> new ApiDescription(base).in(read(at, "paths"), at))
                    .orElse(List.of()),
                sources
                    .har()
                    .map(at -> new Recorded(base).in(read(at, "log"), at))
                    .orElse(List.of()))
            .flatMap(List::stream);
    return all.filter(one -> PATH.matcher(one.path()).matches())
        .filter(one -> asked.add(one.path()))
        .limit(MOST)
        .toList();
  }

  private List<Candidate> declared(Path archive) {
    Insight insight = Insight.of(archive).orElseThrow(() -> cannot(archive, "it is no artifact"));
    List<Candidate> found = new ArrayList<>();
    for (Artifact.Endpoint endpoint : insight.sure()) {
      boolean first = endpoint.pattern().equals("/");
      String where = endpoint.where();
      found.add(
          first ? Candidate.page("/", where) : Candidate.get(endpoint.pattern(), List.of(), where));
    }
    try (ZipArchive zip = ZipArchive.open(archive)) {
      Endpoints.closed(zip).entrySet().stream()
          .filter(one -> one.getKey().matches("/[^*{}]*[*]?"))
          .map(this::guarded)
          .forEach(found::add);
    } catch (IOException e) {
      throw cannot(archive, IoReason.of(e));
    }
    return found;
  }

  /** Below a guarded path nobody gets in who is not logged in; what is there is not known. */
  private Candidate guarded(Map.Entry<String, List<String>> guard) {
    Set<String> allowed =
        guard.getValue().stream()
            .flatMap(role -> application.access().roles().getOrDefault(role, List.of()).stream())
            .collect(Collectors.toSet());
    List<String> known =
        application.access().users().stream()
            .filter(user -> user.password().isPresent() && allowed.contains(user.name()))
            .map(User::name)
            .toList();
    boolean below = guard.getKey().endsWith("*");
    return Candidate.access(
        guard.getKey().replace("*", ""),
        below ? List.of() : known,
        "WEB-INF/web.xml: for " + String.join(", ", guard.getValue()));
  }

  /** Those that pass as the application runs now. */
  private List<Candidate> holding(
      List<Candidate> fresh, Function<Application, List<CheckResult>> tried, List<String> leftOut) {
    Map<String, CheckResult> results =
        tried.apply(described(fresh)).stream()
            .collect(Collectors.toMap(CheckResult::name, one -> one, (one, other) -> one));
    List<Candidate> holding = new ArrayList<>();
    for (Candidate one : fresh) {
      CheckResult result = results.get(one.name());
      if (result != null && result.passed()) {
        holding.add(one);
      } else {
        leftOut.add(one.path() + ": " + (result == null ? "not asked" : missed(result)));
      }
    }
    return holding;
  }

  private static String missed(CheckResult result) {
    return result.misses().stream()
        .map(miss -> miss.what() + " " + miss.got())
        .collect(Collectors.joining("; "));
  }

  /** The application with these checks alone. */
  private Application described(List<Candidate> candidates) {
    Path beside = file.resolveSibling(".jolly-draft-" + ProcessHandle.current().pid() + ".toml");
    try {
      String added = candidates.stream().map(Candidate::text).collect(Collectors.joining());
      Files.writeString(beside, Files.readString(file).stripTrailing() + "\n" + added);
      Set<String> before =
          application.checks().stream().map(Check::name).collect(Collectors.toSet());
      Application all = ApplicationFile.read(beside, Optional.empty(), values);
      return application
          .askingNoData()
          .checking(all.checks().stream().filter(check -> !before.contains(check.name())).toList());
    } catch (IOException e) {
      throw cannot(file, IoReason.of(e));
    } finally {
      delete(beside);
    }
  }

  private static void delete(Path file) {
    try {
      Files.deleteIfExists(file);
    } catch (IOException e) {
      throw cannot(file, IoReason.of(e));
    }
  }

  /** Whoever reads it meanwhile sees the one or the other; a link to it stays one. */
  private void replace(String text) throws IOException {
    Path real = file.toRealPath();
    Path beside = real.resolveSibling(real.getFileName() + ".part");
    Files.copy(
        real, beside, StandardCopyOption.COPY_ATTRIBUTES, StandardCopyOption.REPLACE_EXISTING);
    Files.writeString(beside, text);
    Files.move(beside, real, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
  }

  private static JsonNode read(Path source, String begins) {
    try {
      boolean yaml = source.toString().matches(".*\\.ya?ml");
      ObjectMapper mapper = yaml ? new YAMLMapper() : Json.told();
      JsonNode document = mapper.readTree(SmallFile.bytes(source, MOST_BYTES));
      if (!document.has(begins)) {
        throw cannot(source, "there is no '" + begins + "' in it");
      }
      return document;
    } catch (JacksonException e) {
      throw cannot(source, Json.fault(e));
    } catch (IOException e) {
      throw cannot(source, IoReason.of(e));
    }
  }

  private static NotDescribedException cannot(Path source, String reason) {
    return new NotDescribedException("Cannot draft checks from '" + source + "': " + reason);
  }
}
