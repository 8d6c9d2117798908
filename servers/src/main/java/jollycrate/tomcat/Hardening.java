package jollycrate.tomcat;

import java.nio.file.Path;
import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import jollycrate.host.HostFiles;
import jollycrate.hosting.PasswordHash;
import jollycrate.secret.Secrets;
import jollycrate.secret.WellKnown;
import jollycrate.server.Overhaul;
import jollycrate.server.PickUp;
import jollycrate.server.SelfDescription.Doubt;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Wish;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/** Closes the doors of a Tomcat that everybody knows. */
final class Hardening {
  private static final int RANDOM_BYTES = 24;
  private static final SecureRandom RANDOM = new SecureRandom();

  private final HostFiles files;
  private final Stock stock;
  private final boolean movesPages;
  private final Server server;
  private final ServerXml configuration;
  private final UserRealms realms;
  private final Edits edits;
  private final List<OwnRealms.OwnRealm> applications;
  private final List<Doubt> done = new ArrayList<>();
  private final List<Doubt> left = new ArrayList<>();
  private final Map<String, String> hidden = new HashMap<>();

  Hardening(HostFiles files, Stock stock, Wish.Hardened wish) {
    this.files = files;
    this.stock = stock;
    this.movesPages = wish.movesPages();
    this.server = stock.server();
    this.configuration = ServerXml.of(stock);
    this.realms = new UserRealms(configuration);
    this.edits = new Edits(files, server, configuration);
    this.applications = new OwnRealms(files, server, stock.standing()).plain(configuration);
  }

  Overhaul overhaul() {
    stopWord();
    adminAddress();
    realms.files().forEach(this::users);
    ClosedPages pages = new ClosedPages(files, stock, configuration, edits);
    configuration.main().ifPresent(listener -> pages.close(listener, movesPages));
    done.addAll(pages.done());
    left.addAll(pages.left());
    return new Overhaul(
        Stream.concat(edits.wanted().stream(), pages.moved().stream()).toList(),
        edits.seen(),
        pages.gone(),
        done,
        left,
        pages.refused(),
        hidden);
  }

  private void set(XmlElement element, String attribute, String value) {
    edits.add(edits.serverXml().setting(element, attribute, value));
  }

  private void stopWord() {
    configuration
        .stopPort()
        .filter(ServerXml.StopPort::isUsual)
        .ifPresent(
            port -> {
              String word = random();
              hidden.put(word, "(new word)");
              set(configuration.document().root(), "shutdown", word);
              done.add(
                  new Doubt(
                      "port " + port.port(),
                      "the usual word stops the server",
                      port.where(),
                      "A word of its own, which its own scripts read there too"));
            });
  }

  private void adminAddress() {
    for (ServerXml.Connector connector : configuration.openAdministration()) {
      set(connector.element(), "address", "127.0.0.1");
      done.add(
          new Doubt(
              "port " + connector.port().getAsInt(),
              "the admin listener is open to whoever reaches this machine",
              connector.where(),
              "Loopback only"));
    }
  }

  private void users(Path file) {
    if (!files.facts(files.real(file)).isFile()) {
      return;
    }
    UsersFile users;
    try {
      users = new UsersFile(edits.document(file));
    } catch (XmlException e) {
      left.add(new Doubt(server.shown(file), "users cannot be read", e.getMessage(), "Fix it"));
      return;
    }
    List<UserRealms.UserRealm> reading = realms.reading(file);
    boolean plain = reading.stream().anyMatch(realm -> realm.stored() == UserRealms.Stored.PLAIN);
    if (plain && isReadByApplications(users)) {
      return;
    }
    boolean otherwise =
        reading.stream().anyMatch(realm -> realm.stored() == UserRealms.Stored.OTHERWISE);
    int before = done.size();
    for (UsersFile.User user : users.users()) {
      if (otherwise && !PasswordHash.HASHING.isOne(user.password())) {
        left.add(
            new Doubt(
                "user " + user.name(),
                "its Realm compares in a way of its own, so its password is left as it is",
                user.where(),
                "Give the Realm in conf/server.xml a SecretKeyCredentialHandler"));
      } else {
        user(file, users, user);
      }
    }
    if (plain && done.size() > before) {
      reading.stream()
          .filter(realm -> realm.stored() == UserRealms.Stored.PLAIN)
          .forEach(realm -> edits.add(realms.hashing(realm)));
    }
  }

  /** What others brought along would let nobody in any more, so the file is left to people then. */
  private boolean isReadByApplications(UsersFile users) {
    boolean bad =
        users.users().stream().anyMatch(user -> !PasswordHash.HASHING.isOne(user.password()));
    if (!bad) {
      return false;
    }
    for (OwnRealms.OwnRealm realm : applications) {
      left.add(
          realm.ours()
              ? new Doubt(
                  realm.where(),
                  "this application knows the server's users by a Realm that compares plain text",
                  "",
                  "Deliver it again afterwards: until then they cannot log in there")
              : new Doubt(
                  realm.where(),
                  "this application's own Realm compares plain text, so passwords are left as they"
                      + " are",
                  "",
                  "Give it a SecretKeyCredentialHandler as harden would, then do this again"));
    }
    return applications.stream().anyMatch(realm -> !realm.ours());
  }

  private void user(Path file, UsersFile users, UsersFile.User user) {
    if (WellKnown.contains(user.password(), user.name())) {
      store(file, users, user, random());
      done.add(
          new Doubt(
              "user " + user.name(),
              "the password is one that everybody tries first",
              user.where(),
              "One that nobody knows, until 'jolly server users "
                  + server.name()
                  + " password "
                  + user.name()
                  + "' gives another"));
    } else if (!PasswordHash.HASHING.isOne(user.password())) {
      hidden.put(user.password(), Secrets.HIDDEN);
      store(file, users, user, user.password());
      done.add(
          new Doubt(
              "user " + user.name(),
              "the password stands there in plain text",
              user.where(),
              "A salted hash of the same password; a log-in by DIGEST cannot use that"));
    }
  }

  private void store(Path file, UsersFile users, UsersFile.User user, String password) {
    String hash = PasswordHash.HASHING.of(password);
    hidden.put(hash, "(new hash)");
    edits.add(file, users.password(user, hash), PickUp.RESTART);
  }

  private static String random() {
    byte[] bytes = new byte[RANDOM_BYTES];
    RANDOM.nextBytes(bytes);
    return HexFormat.of().formatHex(bytes);
  }
}
