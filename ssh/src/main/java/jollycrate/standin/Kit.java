package jollycrate.standin;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.util.List;
import jollycrate.host.Launch;
import jollycrate.host.StandIn;
import jollycrate.host.StandIns;
import org.apache.sshd.common.config.keys.KeyUtils;
import org.apache.sshd.common.config.keys.PublicKeyEntry;
import org.apache.sshd.common.config.keys.writer.openssh.OpenSSHKeyPairResourceWriter;
import org.apache.sshd.common.keyprovider.KeyPairProvider;

/** What a stand-in and those who log in to it need. */
public final class Kit implements StandIns {
  private static final int KEY_BITS = 256;
  private static final String USER_ONLY = "rw-------";

  /** Names of its files. */
  static final String HOST_KEY = "host_key";

  static final String AUTHORIZED = "authorized_keys";
  private static final String USER_KEY = "user_key";
  private static final String KNOWN_HOSTS = "known_hosts";

  @Override
  public void prepare(Path folder, StandIn standIn) throws IOException {
    Files.createDirectory(
        StandIn.home(folder),
        PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwxr-x---")));
    String host = key(folder.resolve(HOST_KEY));
    String user = key(folder.resolve(USER_KEY));
    Files.writeString(folder.resolve(AUTHORIZED), user + "\n");
    Files.writeString(
        folder.resolve(KNOWN_HOSTS),
        "[" + standIn.address() + "]:" + standIn.port() + " " + host + "\n");
    Files.writeString(
        StandIn.configuration(folder),
        """
        # How ssh reaches the practice host: ssh -F ssh_config %1$s
        Host %1$s
          HostName %2$s
          Port %3$d
          User %4$s
          IdentityFile "%5$s"
          IdentitiesOnly yes
          UserKnownHostsFile "%6$s"
        """
            .formatted(
                standIn.name(),
                standIn.address(),
                standIn.port(),
                System.getProperty("user.name"),
                folder.resolve(USER_KEY),
                folder.resolve(KNOWN_HOSTS)));
  }

  /** Makes a key; what others know of it (RFC 5656, section 3.1). */
  private static String key(Path file) throws IOException {
    try {
      KeyPair pair = KeyUtils.generateKeyPair(KeyPairProvider.ECDSA_SHA2_NISTP256, KEY_BITS);
      Files.createFile(
          file, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString(USER_ONLY)));
      ByteArrayOutputStream secret = new ByteArrayOutputStream();
      OpenSSHKeyPairResourceWriter.INSTANCE.writePrivateKey(pair, "", null, secret);
      Files.write(file, secret.toByteArray());
      return PublicKeyEntry.toString(pair.getPublic());
    } catch (GeneralSecurityException e) {
      throw new IOException(e.getMessage(), e);
    }
  }

  @Override
  public List<String> arguments(Path folder) {
    return List.of(
        StandIn.mark(folder),
        "-Djolly.token=" + Launch.TOKEN,
        "-Xmx96m",
        "-XX:+UseSerialGC",
        "-XX:TieredStopAtLevel=1",
        "-cp",
        System.getProperty("java.class.path"),
        Main.class.getName(),
        folder.toString());
  }
}
