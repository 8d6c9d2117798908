package jollycrate.site;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import jollycrate.app.Application;
import jollycrate.app.Context;
import jollycrate.app.DataSource;
import jollycrate.app.ServerEntry;
import jollycrate.app.Written;
import jollycrate.json.Json;
import jollycrate.secret.Reference;
import jollycrate.secret.SecretException;
import jollycrate.secret.SecretNames;
import jollycrate.secret.Secrets;

/**
 * The values that count for an application on a server, and for the server, with where each comes
 * from.
 *
 * @param application its name; empty where none is described
 */
public record ValuesInForce(
    String server, String application, List<Value> ofApplication, List<Value> ofServer) {
  private static final List<String> NOT_OF_A_SERVER = List.of("pack", "build", "check");

  /** The tables in the order in which people write them. */
  private static final List<String> ORDER =
      List.of(
          "name",
          "version",
          "artifact",
          "app",
          "datasource",
          "env-entry",
          "users",
          "roles",
          "settings",
          "program");

  /**
   * One of them.
   *
   * @param value as TOML writes it; of a secret, where it stands
   * @param from file and line; empty: nobody wrote one, and this is what counts then
   * @param overrides files and lines where values stand that do not count
   * @param resolves whether a reference leads to a value now; empty for what is none
   */
  public record Value(
      String key, String value, String from, List<String> overrides, Optional<Boolean> resolves) {}

  /** Of a server alone. */
  public static ValuesInForce of(ServerEntry entry, List<Written> server, Secrets secrets) {
    return new ValuesInForce(
        entry.name(), "", List.of(), values(server, usual(entry), entry.folder(), secrets));
  }

  /**
   * The same with an application that is described for it.
   *
   * @param program whether it runs there as a program of its own
   */
  public ValuesInForce with(
      Application described, List<Written> written, boolean program, Secrets secrets) {
    Path folder = described.file().orElseThrow().toAbsolutePath().getParent();
    Set<String> others = new HashSet<>(NOT_OF_A_SERVER);
    others.add(program ? "env-entry" : "program");
    List<Written> own =
        written.stream().filter(value -> !others.contains(tableOf(value.key()))).toList();
    return new ValuesInForce(
        server, described.name(), values(own, usual(described), folder, secrets), ofServer);
  }

  private static List<Value> values(
      List<Written> written, Map<String, String> usual, Path folder, Secrets secrets) {
    List<Value> values = new ArrayList<>();
    for (Written one : written) {
      Optional<Reference> reference =
          Json.read(one.value(), String.class).flatMap(text -> Reference.of(text, folder));
      boolean hidden = reference.isEmpty() && SecretNames.match(lastOf(one.key()));
      values.add(
          new Value(
              one.key(),
              hidden ? Secrets.HIDDEN : one.value(),
              one.place(),
              one.overrides(),
              reference.map(it -> resolves(it, secrets))));
    }
    usual.forEach(
        (key, value) -> {
          if (written.stream().noneMatch(one -> one.key().equals(key))) {
            values.add(new Value(key, value, "", List.of(), Optional.empty()));
          }
        });
    values.sort(Comparator.comparingInt(value -> ORDER.indexOf(tableOf(value.key()))));
    return List.copyOf(values);
  }

  private static String tableOf(String key) {
    return key.split("[.\\[]")[0];
  }

  private static String lastOf(String key) {
    return key.substring(key.lastIndexOf('.') + 1);
  }

  private static boolean resolves(Reference reference, Secrets secrets) {
    try {
      secrets.resolve(reference);
      return true;
    } catch (SecretException e) {
      return false;
    }
  }

  /** What counts where nothing is written. */
  private static Map<String, String> usual(Application application) {
    Map<String, String> usual = new LinkedHashMap<>();
    usual.put("app.path", quoted("/" + application.name()));
    usual.put("app.starts-within", quoted(Context.STARTS_WITHIN.toSeconds() + "s"));
    for (DataSource source : application.dataSources()) {
      String name =
          source.jndiName().matches("[\\w-]+") ? source.jndiName() : quoted(source.jndiName());
      usual.put("datasource." + name + ".pool.max", "" + source.most());
      usual.put("datasource." + name + ".pool.wait", quoted(source.patience().toSeconds() + "s"));
    }
    return usual;
  }

  private static Map<String, String> usual(ServerEntry entry) {
    Map<String, String> usual = new LinkedHashMap<>();
    boolean theirs = entry.steering().log().isPresent() || entry.steering().hasItsOwn();
    if (!theirs) {
      usual.put("address", quoted(entry.ports().address()));
    }
    if (!entry.steering().hasItsOwn()) {
      usual.put("memory", quoted(entry.jvm().memory()));
    }
    usual.put("earlier-releases", "" + entry.keeping().releases());
    usual.put("earlier-space", quoted(entry.keeping().space() / 1_000_000 + "m"));
    return usual;
  }

  private static String quoted(String text) {
    return '"' + text + '"';
  }

  /** Whether every reference leads to a value now. */
  public boolean resolved() {
    return Stream.concat(ofApplication.stream(), ofServer.stream())
        .allMatch(value -> value.resolves().orElse(true));
  }
}
