package jollycrate.ssh;

import com.jcraft.jsch.AgentIdentityRepository;
import com.jcraft.jsch.AgentProxyException;
import com.jcraft.jsch.JSch;
import com.jcraft.jsch.JSchChangedHostKeyException;
import com.jcraft.jsch.JSchException;
import com.jcraft.jsch.JSchUnknownHostKeyException;
import com.jcraft.jsch.SSHAgentConnector;
import com.jcraft.jsch.Session;
import com.jcraft.jsch.UIKeyboardInteractive;
import com.jcraft.jsch.UserInfo;
import java.net.ConnectException;
import java.net.NoRouteToHostException;
import java.net.SocketTimeoutException;
import java.net.UnknownHostException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import jollycrate.host.Reach;
import jollycrate.host.UnreachableException;

/** Logs in to a machine by the keys, the agent or the password of a user; asks nobody. */
final class Login {
  private static final int CONNECTS_WITHIN_MILLIS = 10_000;
  private static final int ALIVE_MILLIS = 5_000;
  private static final int MOST_SILENT = 4;

  private final Reach reach;
  private final Destination destination;
  private final Optional<String> jump;
  private final KnownKeys known;
  private final List<String> tried = new ArrayList<>();

  Login(Reach reach, Destination destination) {
    this(reach, destination, destination.jump());
  }

  private Login(Reach reach, Destination destination, Optional<String> jump) {
    this.reach = reach;
    this.destination = destination;
    this.jump = jump;
    this.known = new KnownKeys(destination.knownHosts());
  }

  /** Connects and logs in. */
  Session session() {
    try {
      JSch client = new JSch();
      known.trustedBy(client);
      keys(client);
      Session session = prepared(client);
      session.setUserInfo(new Passwords());
      session.setDaemonThread(true);
      session.setServerAliveInterval(ALIVE_MILLIS);
      session.setServerAliveCountMax(MOST_SILENT);
      session.connect(CONNECTS_WITHIN_MILLIS);
      return session;
    } catch (JSchException e) {
      throw refused(e);
    }
  }

  /** Connects until the machine shows its key. */
  byte[] shownKey() {
    KnownKeys.Shown shown = new KnownKeys.Shown();
    JSch client = new JSch();
    client.setHostKeyRepository(shown);
    try {
      prepared(client).connect(CONNECTS_WITHIN_MILLIS);
    } catch (JSchUnknownHostKeyException expected) {
      return shown.key();
    } catch (JSchException e) {
      throw refused(e);
    }
    throw new UnreachableException("Cannot reach '" + reach.name() + "': it showed no key");
  }

  private Session prepared(JSch client) throws JSchException {
    Session session =
        client.getSession(destination.user(), destination.hostName(), destination.port());
    destination.keptAs().ifPresent(session::setHostKeyAlias);
    session.setConfig("StrictHostKeyChecking", "yes");
    session.setConfig("PreferredAuthentications", "publickey,password,keyboard-interactive");
    if (jump.isPresent()) {
      session.setProxy(Way.through(jump(jump.get())));
    } else {
      destination.command().map(Way::by).ifPresent(session::setProxy);
    }
    return session;
  }

  /**
   * The last of a chain is reached through those before it (ssh_config(5), ProxyJump). None of them
   * gets the password, which is the target's.
   */
  private Session jump(String hops) {
    int comma = hops.lastIndexOf(',');
    String last = hops.substring(comma + 1);
    Reach hop =
        new Reach(
            reach.name() + " (through " + last + ")",
            last,
            reach.config(),
            Optional.empty(),
            Optional::empty,
            reach.keyPassword());
    Destination next = Destination.of(hop);
    return new Login(hop, next, comma < 0 ? next.jump() : Optional.of(hops.substring(0, comma)))
        .session();
  }

  private void keys(JSch client) throws JSchException {
    if (System.getenv("SSH_AUTH_SOCK") != null && !destination.onlyThoseKeys()) {
      try {
        client.setIdentityRepository(new AgentIdentityRepository(new SSHAgentConnector()));
        tried.add("the agent's keys");
      } catch (AgentProxyException noAgent) {
        tried.add("no agent (" + noAgent.getMessage() + ")");
      }
    }
    for (Path key : destination.keys()) {
      try {
        client.addIdentity(key.toString());
        tried.add(key.toString());
      } catch (JSchException unreadable) {
        tried.add(key + " (cannot be read)");
      }
    }
  }

  private UnreachableException refused(JSchException e) {
    String begin = "Cannot reach '" + reach.name() + "' (" + destination.told() + "): ";
    if (e instanceof JSchUnknownHostKeyException) {
      return new UnreachableException(
          begin
              + "its key is not known here. Look at it and trust it: jolly host trust "
              + reach.name());
    }
    if (e instanceof JSchChangedHostKeyException) {
      return new UnreachableException(begin + changed());
    }
    return new UnreachableException(begin + reason(e));
  }

  private String changed() {
    byte[] key = shownKey();
    String type = SshLines.typeOf(key);
    String before =
        known
            .kept(destination.keptName(), type)
            .map(kept -> "'" + kept.file() + "' line " + kept.line() + " has " + kept.fingerprint())
            .orElse("another one is trusted");
    return "it shows another key than before: "
        + KnownKeys.fingerprint(key)
        + ", where "
        + before
        + ". Somebody may stand in between, or it was set up anew. If you know that it was: jolly"
        + " host trust "
        + reach.name()
        + " --fingerprint "
        + KnownKeys.fingerprint(key);
  }

  private String reason(JSchException e) {
    for (Throwable cause = e; cause != null; cause = cause.getCause()) {
      if (cause instanceof UnknownHostException) {
        return "no name service knows the name '" + destination.hostName() + "'. Fix 'ssh'";
      }
      if (cause instanceof SocketTimeoutException) {
        return nothingCame();
      }
      if (cause instanceof NoRouteToHostException) {
        return "there is no way to it. Is the network of it up, and a VPN if it needs one?";
      }
      if (cause instanceof ConnectException) {
        return cause.getMessage().contains("timed out")
            ? nothingCame()
            : "it refuses connections at port "
                + destination.port()
                + ". Is its SSH server running, and is that its port?";
      }
    }
    String message = String.valueOf(e.getMessage());
    if (message.startsWith("Auth fail") || message.contains("Auth cancel")) {
      return "it does not let "
          + destination.user()
          + " in. Tried: "
          + (tried.isEmpty() ? "no key, as there is none" : told())
          + ". Put your key there, load it into the agent, or name 'password' in [host."
          + reach.name()
          + "]";
    }
    return message.contains("timeout") ? nothingCame() : message;
  }

  private String told() {
    return tried.stream().collect(Collectors.joining(", "));
  }

  private String nothingCame() {
    return "nothing came back from port "
        + destination.port()
        + " within "
        + CONNECTS_WITHIN_MILLIS / 1000
        + " s. A rule on the way lets nothing through, or it is down";
  }

  /** Passwords by reference; whatever else is asked is answered with no. */
  private final class Passwords implements UserInfo, UIKeyboardInteractive {
    private boolean passwordGiven;
    private boolean keyPasswordGiven;

    @Override
    public String getPassphrase() {
      return reach.keyPassword().get().orElse("");
    }

    @Override
    public String getPassword() {
      return reach.password().get().orElse("");
    }

    @Override
    public boolean promptPassword(String message) {
      boolean first = !passwordGiven && reach.password().get().isPresent();
      if (first) {
        tried.add("the password");
      }
      passwordGiven = true;
      return first;
    }

    @Override
    public boolean promptPassphrase(String message) {
      boolean first = !keyPasswordGiven && reach.keyPassword().get().isPresent();
      if (!first) {
        tried.add("an encrypted key that 'key-password' does not open");
      }
      keyPasswordGiven = true;
      return first;
    }

    @Override
    public boolean promptYesNo(String message) {
      return false;
    }

    @Override
    public void showMessage(String message) {}

    @Override
    public String[] promptKeyboardInteractive(
        String where, String name, String instruction, String[] prompts, boolean[] echo) {
      boolean one = prompts.length == 1 && !echo[0] && promptPassword(prompts[0]);
      return one ? new String[] {getPassword()} : null;
    }
  }
}
