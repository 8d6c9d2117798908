package jollycrate.insidejetty;

import java.io.IOException;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Properties;
import org.eclipse.jetty.security.AbstractLoginService;
import org.eclipse.jetty.security.RolePrincipal;
import org.eclipse.jetty.security.UserPrincipal;

/**
 * The users of one application. Their file has a property per user: the salted hash of a password,
 * then the roles, with commas between them.
 */
public final class Users extends AbstractLoginService {
  private final Path file;
  private final Properties users = new Properties();

  /**
   * Users in a file.
   *
   * @param name that a browser shows who asks for the password
   */
  public Users(String name, String file) {
    setName(name);
    this.file = Path.of(file);
  }

  @Override
  protected void doStart() throws Exception {
    load();
    super.doStart();
  }

  private void load() throws IOException {
    users.clear();
    try (Reader reader = Files.newBufferedReader(file, StandardCharsets.UTF_8)) {
      users.load(reader);
    }
  }

  @Override
  protected UserPrincipal loadUserInfo(String name) {
    String told = users.getProperty(name);
    return told == null ? null : new UserPrincipal(name, new SaltedHash(told.split(",")[0]));
  }

  @Override
  protected List<RolePrincipal> loadRoleInfo(UserPrincipal user) {
    return Arrays.stream(users.getProperty(user.getName()).split(","))
        .skip(1)
        .map(RolePrincipal::new)
        .toList();
  }
}
