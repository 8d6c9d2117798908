package jollycrate.tomcat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import jollycrate.server.ServerKind;
import jollycrate.server.ServerKindContract;

/** Tomcat, as far as its files go. */
class TomcatKindTest extends ServerKindContract {
  @Override
  protected ServerKind kind() {
    return new TomcatKind();
  }

  @Override
  protected Path installation(Path instance) throws IOException {
    Path home = folder.resolve("tomcat");
    Files.createDirectories(home.resolve("lib"));
    Files.createDirectories(home.resolve("conf"));
    Files.writeString(home.resolve("lib/catalina.jar"), "");
    Files.writeString(home.resolve("RELEASE-NOTES"), "Apache Tomcat Version 10.1.59\n");
    Files.writeString(home.resolve("conf/web.xml"), "<web-app/>");
    Files.writeString(home.resolve("conf/catalina.properties"), "");
    return home;
  }

  @Override
  protected String handed() {
    return "";
  }
}
