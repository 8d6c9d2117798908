package jollycrate.server;

import java.util.List;
import java.util.Optional;
import jollycrate.app.Ports;

/** What people want of a server itself. */
public sealed interface Wish {
  /** What the act is called. */
  String act();

  /** Why nothing is done of it, on a server whose kind cannot. */
  Wanted.Refused refused(String server);

  /**
   * It lets in nobody by a door that everybody knows.
   *
   * @param movesPages whether its own administration pages go to the admin listener
   */
  record Hardened(boolean movesPages) implements Wish {
    @Override
    public String act() {
      return "harden";
    }

    @Override
    public Wanted.Refused refused(String server) {
      return new Wanted.Refused(
          server,
          "nothing was done: which defaults of such a server everybody knows is not known here",
          "Go through what its own documentation says about security");
    }
  }

  /**
   * Its own files say what its description says.
   *
   * @param before where it was described to listen
   * @param keystore for HTTPS, where another one is to be put there
   */
  record AsDescribed(Ports before, Optional<Keystore> keystore) implements Wish {
    @Override
    public String act() {
      return "change";
    }

    @Override
    public Wanted.Refused refused(String server) {
      return new Wanted.Refused(
          server,
          "nothing was done: its own files are not changed from here",
          "Change its description in servers.toml, then deliver to it");
    }
  }

  /** Its own users, who may log in to whatever on it asks it. */
  record Users(UserChange change) implements Wish {
    @Override
    public String act() {
      return "users";
    }

    @Override
    public Wanted.Refused refused(String server) {
      return new Wanted.Refused(
          server,
          "nothing was done: where such a server keeps users of its own is not known here",
          "Add them where the server keeps them; an application's own stand in [users]");
    }
  }

  /** What becomes of one user. */
  sealed interface UserChange {
    /** Name of the user. */
    String name();
  }

  /** A new one. */
  record Added(String name, String password, List<String> roles) implements UserChange {}

  /** Another password. */
  record Password(String name, String password) implements UserChange {}

  /** Other roles in place of all that he has. */
  record Roles(String name, List<String> roles) implements UserChange {}

  /** No user any more. */
  record Removed(String name) implements UserChange {}
}
