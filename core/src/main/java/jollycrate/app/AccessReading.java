package jollycrate.app;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.secret.Reference;
import org.tomlj.TomlTable;

/** Reads who may log in: {@code [users]}, {@code [roles]} and {@code [logins]}. */
final class AccessReading {
  private final Section root;

  AccessReading(Section root) {
    this.root = root;
  }

  Access read() {
    List<User> users = users();
    return new Access(users, roles(users), new LogInSection(root.section("logins"), users).read());
  }

  private List<User> users() {
    Section section = root.section("users");
    List<User> users = new ArrayList<>();
    for (String name : section.keys()) {
      boolean table = section.value(name).filter(TomlTable.class::isInstance).isPresent();
      boolean there = table || section.value(name).filter("existing"::equals).isPresent();
      Optional<Reference> password = Optional.empty();
      if (table) {
        Section inner = section.section(name);
        password = inner.reference("existing");
        inner.end();
      } else if (!there) {
        password = section.reference(name);
      }
      users.add(new User(name, there, password));
    }
    return users;
  }

  private Map<String, List<String>> roles(List<User> users) {
    Section section = root.section("roles");
    List<String> names = users.stream().map(User::name).toList();
    Map<String, List<String>> roles = new LinkedHashMap<>();
    for (String role : section.keys()) {
      List<String> members = section.texts(role);
      members.stream()
          .filter(member -> !names.contains(member))
          .forEach(
              member ->
                  section.problem(
                      role,
                      "role '" + role + "' has a member '" + member + "' who is not in [users]",
                      names.isEmpty() ? "Add [users]" : Section.fixFor(member, names)));
      roles.put(role, members);
    }
    return roles;
  }
}
