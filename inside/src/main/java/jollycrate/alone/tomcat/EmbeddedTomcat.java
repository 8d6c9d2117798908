package jollycrate.alone.tomcat;

import java.io.File;
import java.util.Map;
import jollycrate.alone.AloneServer;
import jollycrate.alone.Refusal;
import org.apache.catalina.Context;
import org.apache.catalina.LifecycleException;
import org.apache.catalina.LifecycleState;
import org.apache.catalina.connector.Connector;
import org.apache.catalina.startup.Tomcat;
import org.apache.tomcat.util.descriptor.web.ContextResource;

/** Apache Tomcat 9.0 or newer in this process. */
public final class EmbeddedTomcat implements AloneServer {
  private final Tomcat tomcat = new Tomcat();

  @Override
  public int start(Wanted wanted) {
    File base = new File(wanted.folder.toFile(), "server");
    if (!new File(base, "webapps").mkdirs()) {
      throw new Refusal("Cannot make the folder '" + base + "'");
    }
    tomcat.setBaseDir(base.getPath());
    tomcat.setPort(wanted.port);
    if (!wanted.bind.isEmpty()) {
      tomcat.setHostname(wanted.bind);
    }
    tomcat.setSilent(true);
    tomcat.enableNaming();
    Connector connector = tomcat.getConnector();
    connector.setProperty("bindOnInit", "false");
    if (!wanted.bind.isEmpty()) {
      connector.setProperty("address", wanted.bind);
    }
    connector.setThrowOnFailure(true);
    wanted.users.forEach(tomcat::addUser);
    wanted.roles.forEach((role, users) -> users.forEach(user -> tomcat.addRole(user, role)));
    Context context = tomcat.addWebapp(wanted.path, wanted.archive.toString());
    wanted.dataSources.forEach(
        (name, values) -> context.getNamingResources().addResource(dataSource(name, values)));
    try {
      tomcat.start();
    } catch (LifecycleException e) {
      throw new Refusal("Cannot listen on port " + wanted.port + ": " + innermost(e));
    }
    if (context.getState() != LifecycleState.STARTED) {
      stop();
      throw new Refusal("Cannot start the application; the reason stands above");
    }
    return connector.getLocalPort();
  }

  private static String innermost(Throwable e) {
    Throwable at = e;
    while (at.getCause() != null) {
      at = at.getCause();
    }
    return String.valueOf(at.getMessage());
  }

  private static ContextResource dataSource(String name, Map<String, String> values) {
    ContextResource resource = new ContextResource();
    resource.setName(name);
    resource.setType("javax.sql.DataSource");
    resource.setAuth("Container");
    resource.setProperty("url", values.get("url"));
    resource.setProperty("username", values.get("user"));
    resource.setProperty("password", values.get("password"));
    resource.setProperty("maxTotal", values.get("max"));
    resource.setProperty("maxWaitMillis", values.get("wait"));
    String driver = values.get("driver");
    if (!driver.isEmpty()) {
      resource.setProperty("driverClassName", driver);
    }
    return resource;
  }

  @Override
  public void stop() {
    try {
      tomcat.stop();
      tomcat.destroy();
    } catch (LifecycleException e) {
      System.err.println("Cannot stop orderly: " + e.getMessage());
    }
  }
}
