package jollycrate.delivery;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import jollycrate.app.Application;
import jollycrate.app.DataSource;
import jollycrate.app.User;
import jollycrate.artifact.Artifact;
import jollycrate.check.People;
import jollycrate.secret.Reference;
import jollycrate.secret.SecretException;
import jollycrate.secret.Secrets;
import jollycrate.server.Order;

/** Resolves what an application refers to; everything that cannot be resolved is told at once. */
final class Passwords {
  private final Application application;
  private final Secrets secrets;
  private final List<String> unresolved = new ArrayList<>();

  Passwords(Application application, Secrets secrets) {
    this.application = application;
    this.secrets = secrets;
  }

  /** The order to deliver an artifact. */
  Order order(Artifact artifact, boolean onAdminPort) {
    Map<String, String> databases = databases();
    Map<String, String> users = users();
    Map<Reference, String> values = values();
    ofLogIns();
    throwUnresolved();
    users.keySet().removeIf(name -> application.access().user(name).orElseThrow().there());
    return new Order(
        application,
        artifact,
        application.version().orElse(artifact.version()),
        onAdminPort,
        databases,
        users,
        values,
        Optional.empty());
  }

  /** What the settings and variables of a program refer to, and what its launcher asks for. */
  private Map<Reference, String> values() {
    Path folder = application.file().map(Path::toAbsolutePath).map(Path::getParent).orElse(null);
    if (folder == null) {
      return Map.of();
    }
    Map<Reference, String> values = new HashMap<>();
    Stream.concat(
            application.program().variables().values().stream(),
            application.making().settings().values().stream().flatMap(Passwords::texts))
        .flatMap(text -> Reference.of(text, folder).stream())
        .forEach(reference -> resolved(reference).ifPresent(value -> values.put(reference, value)));
    application.context().entries().stream()
        .flatMap(entry -> entry.secret().stream())
        .forEach(reference -> resolved(reference).ifPresent(value -> values.put(reference, value)));
    return values;
  }

  private static Stream<String> texts(JsonNode value) {
    return value.isTextual()
        ? Stream.of(value.textValue())
        : StreamSupport.stream(value.spliterator(), false).flatMap(Passwords::texts);
  }

  private Map<String, String> databases() {
    Map<String, String> databases = new HashMap<>();
    for (DataSource source : application.dataSources()) {
      source
          .password()
          .flatMap(this::resolved)
          .ifPresent(password -> databases.put(source.jndiName(), password));
    }
    return databases;
  }

  /** Who may log in for a check. */
  People people() {
    Map<String, String> known = users();
    known.putAll(ofLogIns());
    Map<String, String> databases = application.data().isEmpty() ? Map.of() : databases();
    throwUnresolved();
    return new People(
        known,
        application.access().logIns(),
        text -> secrets.hide(text, Secrets.HIDDEN),
        databases);
  }

  private Map<String, String> ofLogIns() {
    Map<String, String> found = new HashMap<>();
    application
        .access()
        .logIns()
        .forEach(
            (name, logIn) ->
                logIn.secret().flatMap(this::resolved).ifPresent(it -> found.put(name, it)));
    return found;
  }

  private Map<String, String> users() {
    Map<String, String> passwords = new HashMap<>();
    for (User user : application.access().users()) {
      user.password()
          .flatMap(this::resolved)
          .ifPresent(password -> passwords.put(user.name(), password));
    }
    return passwords;
  }

  private Optional<String> resolved(Reference reference) {
    try {
      return Optional.of(secrets.resolve(reference));
    } catch (SecretException e) {
      unresolved.add(
          application.file().map(file -> place(file, reference)).orElse("") + e.getMessage());
      return Optional.empty();
    }
  }

  /** Where the reference stands, as {@code file:line} and a colon; empty when it is not found. */
  private static String place(Path file, Reference reference) {
    try {
      List<String> lines = Files.readAllLines(file);
      return IntStream.range(0, lines.size())
          .filter(i -> !lines.get(i).stripLeading().startsWith("#"))
          .filter(i -> lines.get(i).contains(reference.text()))
          .mapToObj(i -> file + ":" + (i + 1) + ": ")
          .findFirst()
          .orElse("");
    } catch (IOException changedMeanwhile) {
      return "";
    }
  }

  /** Resolves everything, and keeps nothing. */
  void mustResolve() {
    application.dataSources().stream()
        .flatMap(source -> source.password().stream())
        .forEach(this::resolved);
    users();
    ofLogIns();
    values();
    throwUnresolved();
  }

  private void throwUnresolved() {
    if (!unresolved.isEmpty()) {
      throw new SecretException(unresolved.stream().distinct().collect(Collectors.joining("\n")));
    }
  }
}
