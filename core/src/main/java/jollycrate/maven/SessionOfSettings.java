package jollycrate.maven;

import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.apache.maven.repository.internal.MavenRepositorySystemUtils;
import org.apache.maven.settings.Mirror;
import org.apache.maven.settings.Proxy;
import org.apache.maven.settings.Server;
import org.apache.maven.settings.crypto.SettingsDecryptionResult;
import org.codehaus.plexus.util.xml.Xpp3Dom;
import org.eclipse.aether.DefaultRepositoryCache;
import org.eclipse.aether.DefaultRepositorySystemSession;
import org.eclipse.aether.RepositorySystem;
import org.eclipse.aether.repository.Authentication;
import org.eclipse.aether.repository.LocalRepository;
import org.eclipse.aether.util.repository.AuthenticationBuilder;
import org.eclipse.aether.util.repository.DefaultAuthenticationSelector;
import org.eclipse.aether.util.repository.DefaultMirrorSelector;
import org.eclipse.aether.util.repository.DefaultProxySelector;
import org.eclipse.aether.util.repository.SimpleResolutionErrorPolicy;

/** How repositories are asked: through whom, as whom, for how long, as settings say. */
final class SessionOfSettings {
  private static final Duration CONNECTS_WITHIN = Duration.ofSeconds(10);
  private static final Duration SILENT_FOR = Duration.ofMinutes(1);

  private SessionOfSettings() {}

  static DefaultRepositorySystemSession of(
      MavenSettings settings,
      RepositorySystem system,
      Map<String, String> variables,
      Fetching fetching) {
    DefaultRepositorySystemSession session = MavenRepositorySystemUtils.newSession();
    session.setSystemProperties(MavenSettings.system(variables));
    session.setUserProperties(settings.properties());
    session.setOffline(settings.offline());
    session.setCache(new DefaultRepositoryCache());
    session.setResolutionErrorPolicy(new SimpleResolutionErrorPolicy(false, false));
    session.setTransferListener(fetching);
    session.setMirrorSelector(mirrors(settings.settings().getMirrors()));
    SettingsDecryptionResult clear = settings.decrypted();
    session.setProxySelector(proxies(clear.getProxies()));
    session.setAuthenticationSelector(credentials(clear.getServers()));
    session.setConfigProperties(configuration(clear.getServers()));
    Path local = settings.localRepository();
    session.setLocalRepositoryManager(
        system.newLocalRepositoryManager(session, new LocalRepository(local.toFile())));
    return session;
  }

  private static DefaultMirrorSelector mirrors(List<Mirror> described) {
    DefaultMirrorSelector mirrors = new DefaultMirrorSelector();
    for (Mirror mirror : described) {
      mirrors.add(
          mirror.getId(),
          mirror.getUrl(),
          mirror.getLayout(),
          false,
          mirror.isBlocked(),
          mirror.getMirrorOf(),
          mirror.getMirrorOfLayouts());
    }
    return mirrors;
  }

  private static DefaultProxySelector proxies(List<Proxy> described) {
    DefaultProxySelector proxies = new DefaultProxySelector();
    for (Proxy proxy : described) {
      if (proxy.isActive()) {
        Authentication user =
            new AuthenticationBuilder()
                .addUsername(proxy.getUsername())
                .addPassword(proxy.getPassword())
                .build();
        proxies.add(
            new org.eclipse.aether.repository.Proxy(
                proxy.getProtocol(), proxy.getHost(), proxy.getPort(), user),
            proxy.getNonProxyHosts());
      }
    }
    return proxies;
  }

  private static DefaultAuthenticationSelector credentials(List<Server> servers) {
    DefaultAuthenticationSelector credentials = new DefaultAuthenticationSelector();
    for (Server server : servers) {
      credentials.add(
          server.getId(),
          new AuthenticationBuilder()
              .addUsername(server.getUsername())
              .addPassword(server.getPassword())
              .addPrivateKey(server.getPrivateKey(), server.getPassphrase())
              .build());
    }
    return credentials;
  }

  private static Map<String, Object> configuration(List<Server> servers) {
    Map<String, Object> configuration = new HashMap<>();
    configuration.put("aether.connector.connectTimeout", (int) CONNECTS_WITHIN.toMillis());
    configuration.put("aether.connector.requestTimeout", (int) SILENT_FOR.toMillis());
    for (Server server : servers) {
      Map<String, String> headers = headers(server);
      if (!headers.isEmpty()) {
        configuration.put("aether.connector.http.headers." + server.getId(), headers);
      }
    }
    return configuration;
  }

  /** Headers that a server wants, like a token, as Maven's guide to HTTP settings writes them. */
  private static Map<String, String> headers(Server server) {
    Map<String, String> headers = new HashMap<>();
    if (server.getConfiguration() instanceof Xpp3Dom configuration
        && configuration.getChild("httpHeaders") != null) {
      for (Xpp3Dom header : configuration.getChild("httpHeaders").getChildren()) {
        Xpp3Dom name = header.getChild("name");
        Xpp3Dom value = header.getChild("value");
        if (name != null && value != null) {
          headers.put(name.getValue(), value.getValue());
        }
      }
    }
    return headers;
  }
}
