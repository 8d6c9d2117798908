package jollycrate.tomcat;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;

/**
 * A file of users as it is written; they are its {@code user} elements.
 *
 * @param document the file
 */
record UsersFile(XmlDocument document) {
  private static final String NAME = "username";
  private static final String OLD_NAME = "name";
  private static final String PASSWORD = "password";
  private static final String ROLES = "roles";

  /**
   * One who may log in.
   *
   * @param password as it is stored
   * @param where file and line
   */
  record User(XmlElement element, String name, String password, List<String> roles, String where) {}

  /** In the order of the file. */
  List<User> users() {
    return document.root().children("user").stream().map(this::user).toList();
  }

  private User user(XmlElement element) {
    return new User(
        element,
        element.value(NAME, element.value(OLD_NAME, "")),
        element.value(PASSWORD, ""),
        Arrays.stream(element.value(ROLES, "").split(","))
            .map(String::strip)
            .filter(role -> !role.isEmpty())
            .toList(),
        document.name() + ":" + document.lineOf(element.start()));
  }

  Splice password(User user, String stored) {
    return document.setting(user.element(), PASSWORD, stored);
  }

  Splice roles(User user, List<String> roles) {
    return document.setting(user.element(), ROLES, String.join(",", roles));
  }

  Splice without(User user) {
    return document.removing(user.element());
  }

  Splice with(String name, String stored, List<String> roles) {
    String attributes =
        List.of(
                attribute(NAME, name),
                attribute(PASSWORD, stored),
                attribute(ROLES, String.join(",", roles)))
            .stream()
            .collect(Collectors.joining(" "));
    return document.appending(document.root(), List.of("<user " + attributes + "/>"));
  }

  private static String attribute(String name, String value) {
    return name + "=\"" + XmlDocument.escape(value) + "\"";
  }
}
