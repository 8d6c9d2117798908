package jollycrate.maven;

import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.file.Digests;
import jollycrate.file.IoReason;
import org.apache.maven.settings.Profile;
import org.apache.maven.settings.Settings;
import org.apache.maven.settings.building.DefaultSettingsBuilderFactory;
import org.apache.maven.settings.building.DefaultSettingsBuildingRequest;
import org.apache.maven.settings.building.SettingsBuildingException;
import org.apache.maven.settings.crypto.DefaultSettingsDecrypter;
import org.apache.maven.settings.crypto.DefaultSettingsDecryptionRequest;
import org.apache.maven.settings.crypto.SettingsDecryptionResult;
import org.sonatype.plexus.components.cipher.DefaultPlexusCipher;
import org.sonatype.plexus.components.sec.dispatcher.DefaultSecDispatcher;

/**
 * How the user's Maven is set up, by its settings files, as Maven's settings reference has them,
 * and what it is always told.
 *
 * @param home of the user
 */
record MavenSettings(Settings settings, MavenOptions options, Path home) {

  /**
   * The settings files of a folder: the user's, then the installation's.
   *
   * @param user empty when there is none
   */
  record SettingsFiles(MavenOptions options, Optional<Path> user, Optional<Path> global) {
    static SettingsFiles of(Path folder, Path home, Map<String, String> variables) {
      MavenOptions options = MavenOptions.of(folder, variables);
      Stream.of(options.user(), options.global())
          .flatMap(Optional::stream)
          .forEach(MavenSettings::mustBeThere);
      return new SettingsFiles(
          options,
          options.user().or(() -> there(home.resolve(".m2").resolve("settings.xml"))),
          options.global().or(() -> installed(variables)));
    }

    /** Digest of all that they say; another one may give other files. */
    String digest() {
      StringBuilder all = new StringBuilder(options.words().toString());
      for (Path file : Stream.of(user, global).flatMap(Optional::stream).toList()) {
        try {
          all.append(file).append('\n').append(Files.readString(file)).append('\n');
        } catch (IOException e) {
          throw new MavenException("Cannot read the settings of Maven: " + IoReason.of(e));
        }
      }
      return Digests.of(all.toString().getBytes(StandardCharsets.UTF_8));
    }
  }

  /**
   * Those that hold in a folder.
   *
   * @throws MavenException when a file cannot be read
   */
  static MavenSettings of(Path folder, Path home, Map<String, String> variables) {
    SettingsFiles files = SettingsFiles.of(folder, home, variables);
    DefaultSettingsBuildingRequest request = new DefaultSettingsBuildingRequest();
    files.user().map(Path::toFile).ifPresent(request::setUserSettingsFile);
    files.global().map(Path::toFile).ifPresent(request::setGlobalSettingsFile);
    request.setSystemProperties(system(variables));
    request.setUserProperties(files.options().properties());
    try {
      Settings read =
          new DefaultSettingsBuilderFactory().newInstance().build(request).getEffectiveSettings();
      return new MavenSettings(read, files.options(), home);
    } catch (SettingsBuildingException e) {
      throw new MavenException(
          "Cannot read the settings of Maven: "
              + e.getProblems().stream()
                  .map(problem -> problem.getMessage() + " (" + problem.getLocation() + ")")
                  .collect(Collectors.joining("; "))
              + ". Fix the file");
    }
  }

  private static void mustBeThere(Path file) {
    if (!Files.isRegularFile(file)) {
      throw new MavenException(
          "Cannot read the settings of Maven: there is no '"
              + file
              + "', which .mvn/maven.config or MAVEN_ARGS names. Fix its path there");
    }
  }

  /** The properties of Java, and the variables of the environment as {@code env.NAME}. */
  static Properties system(Map<String, String> variables) {
    Properties properties = new Properties();
    System.getProperties().forEach((key, value) -> properties.put(key, value));
    variables.forEach((name, value) -> properties.setProperty("env." + name, value));
    return properties;
  }

  /** The settings beside the installation that {@code mvn} is started from. */
  private static Optional<Path> installed(Map<String, String> variables) {
    Stream<Path> named =
        Stream.of("MAVEN_HOME", "M2_HOME")
            .flatMap(name -> Optional.ofNullable(variables.get(name)).stream())
            .filter(text -> !text.isBlank())
            .map(Path::of);
    Stream<Path> onPath =
        Arrays.stream(variables.getOrDefault("PATH", "").split(File.pathSeparator))
            .filter(text -> !text.isBlank())
            .map(folder -> Path.of(folder).resolve("mvn"))
            .flatMap(program -> real(program).stream())
            .flatMap(program -> Optional.ofNullable(program.getParent().getParent()).stream());
    return Stream.concat(named, onPath)
        .map(installation -> installation.resolve("conf").resolve("settings.xml"))
        .flatMap(file -> there(file).stream())
        .findFirst();
  }

  private static Optional<Path> real(Path program) {
    try {
      return Optional.of(program.toRealPath());
    } catch (IOException notThere) {
      return Optional.empty();
    }
  }

  private static Optional<Path> there(Path file) {
    return Optional.of(file).filter(Files::isRegularFile);
  }

  /** Where files are kept that were fetched or installed. */
  Path localRepository() {
    return Optional.ofNullable(options.properties().getProperty("maven.repo.local"))
        .or(() -> Optional.ofNullable(settings.getLocalRepository()).filter(s -> !s.isBlank()))
        .map(Path::of)
        .orElse(home.resolve(".m2").resolve("repository"));
  }

  boolean offline() {
    return settings.isOffline() || options.offline();
  }

  /** Profiles that are active whatever is built. */
  List<Profile> profiles() {
    return settings.getProfiles().stream()
        .filter(
            profile ->
                settings.getActiveProfiles().contains(profile.getId())
                    || profile.getActivation() != null
                        && profile.getActivation().isActiveByDefault())
        .toList();
  }

  /** What active profiles and options set, the options before the profiles. */
  Properties properties() {
    Properties properties = new Properties();
    profiles().forEach(profile -> properties.putAll(profile.getProperties()));
    properties.putAll(options.properties());
    return properties;
  }

  /** Whether a profile of a project is chosen by its name. */
  boolean choosesProfiles() {
    List<String> own = settings.getProfiles().stream().map(Profile::getId).toList();
    return options.profiles() || !own.containsAll(settings.getActiveProfiles());
  }

  /** Servers and proxies with their passwords in clear, as far as they can be decrypted. */
  SettingsDecryptionResult decrypted() {
    String key =
        Optional.ofNullable(options.properties().getProperty("settings.security"))
            .orElse(home.resolve(".m2").resolve("settings-security.xml").toString());
    DefaultSettingsDecryptionRequest request = new DefaultSettingsDecryptionRequest();
    request.setServers(settings.getServers());
    request.setProxies(settings.getProxies());
    return new DefaultSettingsDecrypter(
            new DefaultSecDispatcher(new DefaultPlexusCipher(), Map.of(), key))
        .decrypt(request);
  }
}
