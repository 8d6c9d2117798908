package jollycrate.site;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.SecureRandom;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Collections;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.app.Https;
import jollycrate.app.NotDescribedException;
import jollycrate.app.Ports;
import jollycrate.app.ServerEntry;
import jollycrate.check.Certificates;
import jollycrate.file.Trees;
import jollycrate.host.Host;
import jollycrate.host.Ran;
import jollycrate.secret.Secrets;
import jollycrate.server.Keystore;

/** Keystores for listeners that speak HTTPS: a team's own, or one made here. */
final class Keystores {
  private static final String FORMAT = "PKCS12";
  private static final String DAYS = "825";
  private static final int PASSWORD_BYTES = 24;
  private static final Duration MADE_WITHIN = Duration.ofSeconds(60);

  private final Host host;
  private final Secrets secrets;
  private final Function<ServerEntry, Ports> reached;

  /**
   * @param host the machine that the tool itself runs on
   * @param reached where people reach a server
   */
  Keystores(Host host, Secrets secrets, Function<ServerEntry, Ports> reached) {
    this.host = host;
    this.reached = reached;
    this.secrets = secrets;
  }

  /**
   * That of a team.
   *
   * @throws NotDescribedException when it cannot be opened, or holds no key with a valid
   *     certificate
   */
  Keystore given(Https https) {
    Path file = https.keystore().orElseThrow();
    String password = secrets.resolve(https.password().orElseThrow());
    try {
      return opened(file.toString(), Files.readAllBytes(file), password);
    } catch (IOException e) {
      throw cannot(file.toString(), "there is no such readable file", "Fix 'keystore'");
    }
  }

  /** A new one, with a key and a certificate that is signed by that key. */
  Keystore made(ServerEntry server) {
    byte[] random = new byte[PASSWORD_BYTES];
    new SecureRandom().nextBytes(random);
    String password = HexFormat.of().formatHex(random);
    secrets.hide(password, Secrets.HIDDEN);
    Path folder = Trees.temporary();
    try {
      Path file = folder.resolve("keystore.p12");
      run(command(server.name(), names(reached.apply(server)), file), folder, password);
      return opened("a new keystore", Files.readAllBytes(file), password);
    } catch (IOException e) {
      throw cannot("a new keystore", e.getMessage(), "");
    } finally {
      Trees.discard(folder);
    }
  }

  /** What it is asked by: its machine's own loopback, and what people reach it by. */
  private static String names(Ports ports) {
    return Stream.of(
            "localhost", "127.0.0.1", "::1", ports.hostName(), ports.publicly("/").getHost())
        .map(name -> name.replaceAll("[\\[\\]]", ""))
        .distinct()
        .map(name -> (name.matches("[0-9.]+|[0-9a-fA-F:]+") ? "ip:" : "dns:") + name)
        .collect(Collectors.joining(","));
  }

  private static List<String> command(String server, String names, Path file) {
    return List.of(
        Path.of(System.getProperty("java.home"), "bin", "keytool").toString(),
        "-genkeypair",
        "-alias",
        "jolly",
        "-keyalg",
        "EC",
        "-groupname",
        "secp256r1",
        "-sigalg",
        "SHA256withECDSA",
        "-validity",
        DAYS,
        "-dname",
        "CN=" + server,
        "-ext",
        "SAN=" + names,
        "-storetype",
        FORMAT,
        "-keystore",
        file.toString(),
        "-storepass:env",
        "KEYSTORE_PASSWORD");
  }

  private void run(List<String> command, Path folder, String password) {
    Map<String, String> environment = new HashMap<>(host.environment());
    environment.put("KEYSTORE_PASSWORD", password);
    Ran ran = host.processes().run(command, folder, environment, "", MADE_WITHIN);
    if (ran.exit() != 0) {
      throw cannot("a new keystore", (ran.output() + ran.errors()).strip(), "Give a 'keystore'");
    }
  }

  private static Keystore opened(String name, byte[] bytes, String password) {
    try {
      KeyStore store = KeyStore.getInstance(FORMAT);
      store.load(new ByteArrayInputStream(bytes), password.toCharArray());
      for (String alias : Collections.list(store.aliases())) {
        if (store.isKeyEntry(alias)
            && store.getCertificate(alias) instanceof X509Certificate certificate) {
          return new Keystore(
              bytes, password, Certificates.digest(certificate), told(name, certificate));
        }
      }
      throw cannot(name, "it holds no key with a certificate", "Put both into it");
    } catch (IOException | GeneralSecurityException e) {
      throw cannot(
          name, "it is no PKCS#12, or its password is another one", "Fix 'keystore-password'");
    }
  }

  private static String told(String name, X509Certificate certificate) {
    Instant end = certificate.getNotAfter().toInstant();
    if (end.isBefore(Instant.now())) {
      throw cannot(name, "its certificate ended at " + end, "Renew it");
    }
    boolean own =
        certificate.getSubjectX500Principal().equals(certificate.getIssuerX500Principal());
    return certificate.getSubjectX500Principal().getName()
        + (own ? ", signed by itself" : "")
        + ", until "
        + end.atZone(ZoneId.systemDefault()).toLocalDate();
  }

  private static NotDescribedException cannot(String name, String why, String fix) {
    return new NotDescribedException(
        "Cannot use keystore '" + name + "': " + why + (fix.isEmpty() ? "" : ". " + fix));
  }
}
