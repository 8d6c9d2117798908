package jollycrate.service;

import java.nio.file.Path;
import jollycrate.server.ServerKind;
import jollycrate.server.ServerKindContract;

/** A service, as far as its files go. */
class ServiceKindTest extends ServerKindContract {
  private static final String HANDED =
      """
      [program]
      port = { argument = "--port" }
      settings-file = "bell.yaml"
      arguments = ["{settings}"]
      [program.datasource.bell]
      url = { setting = "db.url" }
      password = { setting = "db.password" }
      """;

  @Override
  protected ServerKind kind() {
    return new ServiceKind();
  }

  @Override
  protected Path installation(Path instance) {
    return instance;
  }

  @Override
  protected String handed() {
    return HANDED;
  }
}
