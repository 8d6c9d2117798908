package jollycrate.app;

import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.secret.Reference;

/**
 * One machine as {@code servers.toml} describes it.
 *
 * @param ssh where {@code ssh} itself would go: an alias, {@code user@name}, {@code user@name:port}
 * @param config an SSH configuration file of the team, in place of each one's own
 * @param sudo user to become there, without a password
 * @param sshKeep for how long a connection stays for later commands
 * @param password of the user who logs in
 * @param keyPassword opens an encrypted key
 */
public record HostEntry(
    String name,
    String ssh,
    Optional<Path> config,
    Optional<String> sudo,
    Duration sshKeep,
    Optional<Reference> password,
    Optional<Reference> keyPassword) {
  /** How long a connection stays if nothing else is said. */
  public static final Duration SSH_KEEP = Duration.ofMinutes(10);

  private static final String TARGET_FORM = "(?:[^@\\s/-][^@\\s/]*@)?[^@\\s/-][^@\\s/]*";
  private static final String USER_FORM = "[a-z_][a-z0-9_-]*\\$?";

  static List<HostEntry> all(Section hosts, Path folder) {
    List<HostEntry> entries = new ArrayList<>();
    for (String name : hosts.keys()) {
      Section section = hosts.section(name);
      if (!section.isEmpty()) {
        entries.add(read(name, section, folder));
      }
    }
    return entries;
  }

  private static HostEntry read(String name, Section section, Path folder) {
    if (!name.matches(ServersFile.NAME_FORM)) {
      section.missing("ssh", "'" + name + "' is no name: use letters, digits, _ and - only");
    }
    if (!section.has("ssh")) {
      section.missing("ssh", "Say where it is, like ssh = \"deploy@app1.example\"");
    }
    HostEntry entry =
        new HostEntry(
            name,
            text(section, "ssh", TARGET_FORM, "Write an alias, user@name or user@name:port")
                .orElse("unnamed"),
            section.text("config").map(file -> folder.resolve(file).normalize()),
            text(section, "sudo", USER_FORM, "Write the name of a user, like \"tomcat\""),
            section.duration("ssh-keep").orElse(SSH_KEEP),
            section.reference("password"),
            section.reference("key-password"));
    section.end();
    return entry;
  }

  private static Optional<String> text(Section section, String key, String form, String fix) {
    Optional<String> text = section.text(key);
    text.filter(told -> !told.matches(form))
        .ifPresent(told -> section.problem(key, "'" + told + "' is none that can be reached", fix));
    return text.filter(told -> told.matches(form));
  }
}
