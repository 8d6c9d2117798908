package jollycrate.liberty;

import java.util.List;
import java.util.Optional;
import jollycrate.hosting.HashedUsers;
import jollycrate.hosting.UserFiles;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlException;

/** A user of the server; which roles he has is said by each application. */
final class UserXml {
  /** No application is called so. */
  private static final String BEFORE = "user~";

  /** Id of the registry that we make. */
  static final String REGISTRY = "jolly";

  private UserXml() {}

  /** Those of a registry. */
  static UserFiles files(LibertyBase base, String registry) {
    return new UserFiles(
        base.dropins(), BEFORE, user -> text(registry, user), UserXml::hash, text -> List.of());
  }

  private static String text(String registry, HashedUsers.HashedUser user) {
    return """
        <server>
          <basicRegistry id="%s">
            <user name="%s" password="%s"/>
          </basicRegistry>
        </server>
        """
        .formatted(
            XmlDocument.escape(registry),
            XmlDocument.escape(user.name()),
            XmlDocument.escape(user.hash()));
  }

  private static Optional<String> hash(String text) {
    try {
      return XmlDocument.parse("user", text).root().descendants("user").stream()
          .map(user -> user.value("password", ""))
          .findFirst();
    } catch (XmlException damaged) {
      return Optional.empty();
    }
  }
}
