package jollycrate.delivery;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Application;
import jollycrate.app.DataSource;
import jollycrate.app.Reference;
import jollycrate.app.SecretException;
import jollycrate.app.Secrets;
import jollycrate.app.User;
import jollycrate.artifact.Artifact;
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
    Map<String, String> databases = new HashMap<>();
    for (DataSource source : application.dataSources()) {
      source
          .password()
          .flatMap(this::resolved)
          .ifPresent(password -> databases.put(source.jndiName(), password));
    }
    Map<String, String> users = users();
    throwUnresolved();
    users.keySet().removeIf(name -> application.user(name).orElseThrow().there());
    return new Order(
        application,
        artifact,
        application.version().orElse(artifact.version()),
        onAdminPort,
        databases,
        users);
  }

  /** Passwords of everybody who may log in for a check, by user name. */
  Map<String, String> ofUsers() {
    Map<String, String> users = users();
    throwUnresolved();
    return users;
  }

  private Map<String, String> users() {
    Map<String, String> passwords = new HashMap<>();
    for (User user : application.users()) {
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
      unresolved.add(e.getMessage());
      return Optional.empty();
    }
  }

  private void throwUnresolved() {
    if (!unresolved.isEmpty()) {
      throw new SecretException(String.join("\n", unresolved));
    }
  }
}
