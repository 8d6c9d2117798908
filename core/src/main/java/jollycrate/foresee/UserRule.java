package jollycrate.foresee;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import jollycrate.app.Application;

/** Roles that the artifact asks for have somebody, and roles given out are asked for. */
final class UserRule implements Rule {
  @Override
  public List<Finding> look(Scene scene) {
    Application application = scene.order().application();
    List<Finding> findings = new ArrayList<>();
    for (String role : scene.order().artifact().web().roles()) {
      if (application.access().roles().getOrDefault(role, List.of()).isEmpty()) {
        findings.add(
            Finding.warn(
                role,
                "the application asks for this role, and nobody described has it",
                "WEB-INF/web.xml",
                "Add somebody to '"
                    + role
                    + "' in [roles], unless the server's own users have it"));
      }
    }
    for (Map.Entry<String, List<String>> role : application.access().roles().entrySet()) {
      if (!scene.order().artifact().web().roles().contains(role.getKey())) {
        findings.add(
            Finding.note(role.getKey(), "given out in [roles], but web.xml does not name it"));
      }
    }
    application.access().users().stream()
        .filter(user -> user.there())
        .forEach(
            user ->
                findings.add(
                    Finding.note(
                        user.name(), "known to the server already: its roles are the server's")));
    return findings;
  }
}
