package jollycrate.wildfly;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.hosting.HashedUsers;
import jollycrate.hosting.LineSplicer;
import jollycrate.server.Order;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Server;
import jollycrate.server.ServerUser;
import jollycrate.server.Stock;
import jollycrate.xml.XmlElement;
import org.apache.commons.codec.digest.DigestUtils;

/**
 * The realm for applications of a WildFly that people have: users and their roles in two files of
 * properties, which it reads again when they change. Passwords stand there as MD5 over name, realm
 * and password, without a salt.
 *
 * @param name which is part of each digest
 */
record PropertiesRealm(String name, Path users, Path roles) {
  /** A key is the name of a user. */
  static final class Lines extends LineSplicer {
    private static final String BETWEEN = "=";

    Lines() {
      super(BETWEEN);
    }
  }

  /** The name of the file of users as it ships. */
  static final String USERS = "application-users.properties";

  private static final String SHIPPED = "ApplicationRealm";
  private static final String FOLDER = "jboss.server.config.dir";

  /** The files as they ship. */
  static List<Path> files(Server server) {
    Path folder = Configuration.file(server).getParent();
    return Stream.of(USERS, "application-roles.properties").map(folder::resolve).toList();
  }

  /** The one that ships, where the configuration has it still. */
  static Optional<PropertiesRealm> among(Stream<XmlElement> realms, Server server) {
    List<Path> files = files(server);
    return realms
        .filter(realm -> realm.value("name", "").equals(SHIPPED))
        .filter(realm -> stands(realm, "users-properties", files.get(0)))
        .filter(realm -> stands(realm, "groups-properties", files.get(1)))
        .flatMap(realm -> realm.child("users-properties").stream())
        .filter(told -> !told.value("plain-text", "false").equals("true"))
        .map(told -> told.value("digest-realm-name", SHIPPED))
        .map(name -> new PropertiesRealm(name, files.get(0), files.get(1)))
        .findFirst();
  }

  private static boolean stands(XmlElement realm, String element, Path file) {
    return realm
        .child(element)
        .filter(told -> told.value("relative-to", "").equals(FOLDER))
        .filter(told -> told.value("path", "").equals(file.getFileName().toString()))
        .isPresent();
  }

  /** The users of an order. */
  HashedUsers hashed(Order order) {
    return HashedUsers.of(order, this::digest);
  }

  private String digest(String user, String password) {
    String told = user + ":" + name + ":" + password;
    return DigestUtils.md5Hex(told.getBytes(StandardCharsets.UTF_8));
  }

  /** The lines that are a user. */
  List<Piece> pieces(HashedUsers.HashedUser user) {
    List<Piece> pieces = new ArrayList<>(List.of(line(users, user.name(), user.hash())));
    if (!user.roles().isEmpty()) {
      pieces.add(line(roles, user.name(), String.join(",", user.roles())));
    }
    return pieces;
  }

  private static Piece line(Path file, String user, String rest) {
    return new Piece.Fragment(file, user, user + Lines.BETWEEN + rest, Part.SUPPORT, PickUp.LIVE);
  }

  /** Digests in such a file of users, with what people see instead. */
  static Map<String, String> secretsIn(String text) {
    return HashedUsers.shown(
        lines(text).map(line -> line.substring(line.indexOf(Lines.BETWEEN) + 1).strip()).toList());
  }

  private static Stream<String> lines(String text) {
    return text.lines().filter(line -> !line.startsWith("#") && line.contains(Lines.BETWEEN));
  }

  /** Everybody. */
  List<ServerUser> all(Stock stock) {
    Lines lines = new Lines();
    String theirRoles = stock.text(roles).orElse("");
    return lines(stock.text(users).orElse(""))
        .map(line -> line.substring(0, line.indexOf(Lines.BETWEEN)))
        .map(
            user ->
                new ServerUser(
                    user,
                    lines.find(theirRoles, user).stream()
                        .map(line -> line.substring(user.length() + 1))
                        .flatMap(told -> Arrays.stream(told.split(",")))
                        .filter(role -> !role.isBlank())
                        .toList(),
                    "MD5, quick to guess",
                    stock.server().shown(users)))
        .toList();
  }
}
