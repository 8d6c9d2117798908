package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import jollycrate.hosting.PasswordHash;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;

/** The realms of a server whose users stand in a file. */
final class UserRealms {
  /** Where Tomcat itself looks for users when it is not told. */
  private static final String USERS = "conf/tomcat-users.xml";

  private static final String HANDLER = "CredentialHandler";
  private static final String USUAL_NAME = "UserDatabase";

  private final ServerXml configuration;
  private final Map<String, XmlElement> databases = new TreeMap<>();
  private final List<UserRealm> realms = new ArrayList<>();

  /** How a realm compares what somebody types with what is stored. */
  enum Stored {
    /** The password itself is stored. */
    PLAIN,
    /** A salted hash as we make it is stored. */
    HASHED,
    /** Something else is stored. */
    OTHERWISE
  }

  /**
   * A realm that reads a file of users.
   *
   * @param watched whether a running server looks at the file again
   */
  record UserRealm(XmlElement element, Path users, Stored stored, boolean watched) {}

  UserRealms(ServerXml configuration) {
    this.configuration = configuration;
    for (XmlElement resource : configuration.document().root().descendants("Resource")) {
      if (configuration.value(resource, "type", "").endsWith(".UserDatabase")) {
        databases.put(configuration.value(resource, "name", USUAL_NAME), resource);
      }
    }
    configuration.document().root().descendants("Realm").forEach(this::add);
  }

  private void add(XmlElement realm) {
    String type = configuration.value(realm, "className", "");
    if (type.endsWith(".MemoryRealm")) {
      realms.add(new UserRealm(realm, file(realm), stored(realm), false));
    }
    XmlElement database = databases.get(configuration.value(realm, "resourceName", USUAL_NAME));
    if (type.endsWith(".UserDatabaseRealm") && database != null) {
      boolean watched = configuration.value(database, "watchSource", "true").equals("true");
      realms.add(new UserRealm(realm, file(database), stored(realm), watched));
    }
  }

  private Path file(XmlElement element) {
    return configuration.inFolder(configuration.value(element, "pathname", USERS));
  }

  private Stored stored(XmlElement realm) {
    Optional<XmlElement> handler = realm.child(HANDLER);
    if (handler.isEmpty()) {
      return Stored.PLAIN;
    }
    boolean ours =
        configuration.value(handler.get(), "className", "").endsWith(".SecretKeyCredentialHandler")
            && configuration.value(handler.get(), "algorithm", "").equals(PasswordHash.ALGORITHM)
            && configuration
                .value(handler.get(), "keyLength", "")
                .equals("" + PasswordHash.KEY_BITS);
    return ours ? Stored.HASHED : Stored.OTHERWISE;
  }

  /** The files in which users stand who may log in, whether a realm asks for them or not. */
  List<Path> files() {
    return Stream.concat(
            databases.values().stream().map(this::file), realms.stream().map(UserRealm::users))
        .distinct()
        .toList();
  }

  /** Those that read a file. */
  List<UserRealm> reading(Path file) {
    return realms.stream().filter(realm -> realm.users().equals(file)).toList();
  }

  /** The first that people are asked by who log in to an application of the server. */
  Optional<UserRealm> first() {
    return realms.stream().findFirst();
  }

  /** Lets a realm compare with salted hashes. */
  Splice hashing(UserRealm realm) {
    XmlDocument document = configuration.document();
    String indent = document.indentOf(realm.element()) + "  ";
    return document.inserting(
        realm.element(),
        (realm.element().selfClosed() ? indent : "  ")
            + CredentialHandler.xml(" ")
            + document.lineEnd()
            + (realm.element().selfClosed() ? "" : document.indentOf(realm.element())));
  }
}
