package jollycrate.liberty;

import java.util.List;
import java.util.Optional;
import jollycrate.hosting.HashedUsers;
import jollycrate.hosting.UserFiles;
import jollycrate.server.Server;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlException;

/** A user of the server; which roles he has is said by each application. */
final class UserXml {
  /** No application is called so. */
  private static final String BEFORE = "user~";

  private UserXml() {}

  static UserFiles files(Server server) {
    return new UserFiles(
        LibertyFiles.dropins(server), BEFORE, UserXml::text, UserXml::hash, text -> List.of());
  }

  private static String text(HashedUsers.HashedUser user) {
    return """
        <server>
          <basicRegistry id="jolly">
            <user name="%s" password="%s"/>
          </basicRegistry>
        </server>
        """
        .formatted(XmlDocument.escape(user.name()), XmlDocument.escape(user.hash()));
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
