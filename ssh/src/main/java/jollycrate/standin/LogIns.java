package jollycrate.standin;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import jollycrate.host.StandIn;
import org.apache.sshd.common.cipher.BuiltinCiphers;
import org.apache.sshd.common.kex.BuiltinDHFactories;
import org.apache.sshd.common.keyprovider.FileKeyPairProvider;
import org.apache.sshd.core.CoreModuleProperties;
import org.apache.sshd.server.ServerBuilder;
import org.apache.sshd.server.SshServer;
import org.apache.sshd.server.channel.ChannelSession;
import org.apache.sshd.server.config.keys.AuthorizedKeysAuthenticator;
import org.apache.sshd.server.forward.AcceptAllForwardingFilter;
import org.apache.sshd.server.shell.ProcessShellFactory;

/**
 * The SSH server of a stand-in. Whoever holds its key works as the user who started it, with a home
 * of his own.
 */
record LogIns(SshServer server) implements AutoCloseable {

  static LogIns start(Path folder, StandIn standIn) throws IOException {
    SshServer server = SshServer.setUpDefaultServer();
    server.setHost(standIn.address());
    server.setPort(standIn.port());
    server.setKeyPairProvider(new FileKeyPairProvider(folder.resolve(Kit.HOST_KEY)));
    server.setPublickeyAuthenticator(
        new AuthorizedKeysAuthenticator(folder.resolve(Kit.AUTHORIZED)));
    server.setForwardingFilter(AcceptAllForwardingFilter.INSTANCE);
    server.setCipherFactories(List.of(BuiltinCiphers.aes128gcm, BuiltinCiphers.aes128ctr));
    server.setKeyExchangeFactories(
        List.of(ServerBuilder.DH2KEX.apply(BuiltinDHFactories.ecdhp256)));
    server.setCommandFactory(
        (channel, command) -> shell(folder, List.of("-c", command), command).createShell(channel));
    server.setShellFactory(shell(folder, List.of(), "sh"));
    CoreModuleProperties.IDLE_TIMEOUT.set(server, Duration.ZERO);
    server.start();
    return new LogIns(server);
  }

  /** A real shell, with nothing of our own environment but the way to programs. */
  private static ProcessShellFactory shell(Path folder, List<String> arguments, String told) {
    String user = System.getProperty("user.name");
    List<String> command =
        new ArrayList<>(
            List.of(
                "/usr/bin/env",
                "-i",
                "PATH=" + System.getenv().getOrDefault("PATH", "/usr/bin:/bin"),
                "HOME=" + StandIn.home(folder),
                "USER=" + user,
                "LOGNAME=" + user,
                "SHELL=/bin/sh",
                "/bin/sh"));
    command.addAll(arguments);
    return new ProcessShellFactory(told, command) {
      @Override
      protected List<String> resolveEffectiveCommand(
          ChannelSession channel, String raw, List<String> exactly) {
        return exactly;
      }
    };
  }

  boolean isOpen() {
    return server.isOpen();
  }

  @Override
  public void close() throws IOException {
    server.stop(true);
  }
}
