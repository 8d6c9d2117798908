package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import jollycrate.app.Nearest;
import jollycrate.host.HostFiles;
import jollycrate.hosting.PasswordHash;
import jollycrate.secret.WellKnown;
import jollycrate.server.Overhaul;
import jollycrate.server.PickUp;
import jollycrate.server.SelfDescription.Doubt;
import jollycrate.server.Server;
import jollycrate.server.ServerUser;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;
import jollycrate.server.Wish;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlException;

/** Users whom a Tomcat itself knows, in the file that its own realm reads. */
final class OwnUsers {
  private final Server server;
  private final UserRealms realms;
  private final Edits edits;
  private final Map<String, String> hidden = new HashMap<>();

  OwnUsers(HostFiles files, Stock stock) {
    this.server = stock.server();
    ServerXml configuration = ServerXml.of(stock);
    this.realms = new UserRealms(configuration);
    this.edits = new Edits(files, server, configuration);
  }

  /** Everybody who stands there. */
  List<ServerUser> all() {
    return realms.first().stream()
        .flatMap(realm -> read(realm).users().stream().map(user -> told(realm, user)))
        .toList();
  }

  private UsersFile read(UserRealms.UserRealm realm) {
    return new UsersFile(edits.document(realm.users()));
  }

  private static ServerUser told(UserRealms.UserRealm realm, UsersFile.User user) {
    String stored =
        switch (realm.stored()) {
          case PLAIN -> "plain text";
          case HASHED ->
              PasswordHash.HASHING.isOne(user.password()) ? "salted hash" : "no hash: no log-in";
          case OTHERWISE -> "as its Realm asks for";
        };
    boolean known = WellKnown.contains(user.password(), user.name());
    return new ServerUser(
        user.name(), user.roles(), known ? stored + ", well known" : stored, user.where());
  }

  /** What has to be changed for a wish. */
  Overhaul overhaul(Wish.UserChange change) {
    try {
      return realms
          .first()
          .map(realm -> overhaul(realm, change))
          .orElseGet(
              () ->
                  refused(
                      "conf/server.xml has no Realm whose users stand in a file",
                      "Give its Engine a UserDatabaseRealm"));
    } catch (XmlException e) {
      return refused("its users cannot be read: " + e.getMessage(), "Fix the file");
    }
  }

  private Overhaul overhaul(UserRealms.UserRealm realm, Wish.UserChange change) {
    UsersFile file = read(realm);
    Optional<UsersFile.User> user =
        file.users().stream().filter(one -> one.name().equals(change.name())).findFirst();
    if (change instanceof Wish.Added added) {
      return user.map(one -> again(one, added)).orElseGet(() -> add(realm, file, added));
    }
    if (user.isEmpty()) {
      List<String> names = file.users().stream().map(UsersFile.User::name).toList();
      return refused(
          "it knows no user '" + change.name() + "'",
          Nearest.to(change.name(), new TreeSet<>(names))
              .map(near -> "Did you mean '" + near + "'?")
              .orElse("'jolly server users " + server.name() + "' lists them"));
    }
    if (change instanceof Wish.Password password) {
      return PasswordHash.HASHING.verifies(user.get().password(), password.password())
          ? Overhaul.NONE
          : storing(
              realm,
              password.password(),
              hash -> file.password(user.get(), hash),
              change,
              "gets another password");
    }
    if (change instanceof Wish.Roles roles) {
      return user.get().roles().equals(roles.roles())
          ? Overhaul.NONE
          : edited(
              realm,
              file.roles(user.get(), roles.roles()),
              List.of(
                  told(
                      change,
                      "roles: "
                          + shown(roles.roles())
                          + ", in place of "
                          + shown(user.get().roles()))));
    }
    return edited(realm, file.without(user.get()), List.of(told(change, "is removed")));
  }

  /** The same user added again is no change. */
  private Overhaul again(UsersFile.User there, Wish.Added added) {
    boolean same =
        there.roles().equals(added.roles())
            && PasswordHash.HASHING.verifies(there.password(), added.password());
    return same
        ? Overhaul.NONE
        : refused(
            "it knows a user '" + added.name() + "' already (" + there.where() + ")",
            "Change it with 'password' or 'roles' in place of 'add'");
  }

  private Overhaul add(UserRealms.UserRealm realm, UsersFile file, Wish.Added added) {
    return storing(
        realm,
        added.password(),
        hash -> file.with(added.name(), hash, added.roles()),
        added,
        "is added; roles: " + shown(added.roles()));
  }

  private static Doubt told(Wish.UserChange change, String what) {
    return new Doubt("user " + change.name(), what, "", "");
  }

  private static String shown(List<String> roles) {
    return roles.isEmpty() ? "none" : String.join(", ", roles);
  }

  /** How a file looks with a hash in it. */
  private interface Storing {
    Splice of(String hash);
  }

  private Overhaul storing(
      UserRealms.UserRealm realm,
      String password,
      Storing storing,
      Wish.UserChange change,
      String what) {
    if (WellKnown.contains(password, change.name())) {
      return refused("that password is one that everybody tries first", "Choose another");
    }
    List<UserRealms.UserRealm> reading = realms.reading(realm.users());
    if (reading.stream().anyMatch(one -> one.stored() == UserRealms.Stored.OTHERWISE)) {
      return refused(
          "its Realm compares passwords in a way of its own",
          "Give the Realm in conf/server.xml a SecretKeyCredentialHandler");
    }
    List<Doubt> done = new ArrayList<>(List.of(told(change, what)));
    for (UserRealms.UserRealm plain : reading) {
      if (plain.stored() == UserRealms.Stored.PLAIN) {
        boolean others =
            read(realm).users().stream()
                .anyMatch(one -> !PasswordHash.HASHING.isOne(one.password()));
        if (others) {
          return refused(
              "its Realm compares passwords as plain text",
              "'jolly server harden "
                  + server.name()
                  + "' stores salted hashes; then do this again");
        }
        edits.add(realms.hashing(plain));
        done.add(
            new Doubt(
                "conf/server.xml",
                "its Realm compares passwords as plain text, and there are none yet",
                "",
                "Salted hashes from now on"));
      }
    }
    String hash = PasswordHash.HASHING.of(password);
    hidden.put(hash, "(new hash)");
    return edited(realm, storing.of(hash), done);
  }

  private Overhaul edited(UserRealms.UserRealm realm, Splice splice, List<Doubt> done) {
    Path file = realm.users();
    boolean watched = realms.reading(file).stream().allMatch(UserRealms.UserRealm::watched);
    edits.add(file, splice, watched ? PickUp.LIVE : PickUp.RESTART);
    return new Overhaul(
        edits.wanted(), edits.seen(), List.of(), done, List.of(), List.of(), hidden);
  }

  private Overhaul refused(String message, String fix) {
    return Overhaul.refused(new Wanted.Refused(server.name(), message, fix));
  }
}
