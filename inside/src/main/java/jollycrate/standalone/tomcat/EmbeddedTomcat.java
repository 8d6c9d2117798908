package jollycrate.standalone.tomcat;

import java.io.File;
import java.util.Map;
import jollycrate.standalone.Refusal;
import jollycrate.standalone.StandaloneServer;
import org.apache.catalina.Container;
import org.apache.catalina.Context;
import org.apache.catalina.Lifecycle;
import org.apache.catalina.LifecycleException;
import org.apache.catalina.LifecycleState;
import org.apache.catalina.connector.Connector;
import org.apache.catalina.startup.Tomcat;
import org.apache.tomcat.util.descriptor.web.ContextResource;

/** Apache Tomcat 9.0 or newer in this process. */
public final class EmbeddedTomcat implements StandaloneServer {
  private static final String[] POOLS = {
    "org.apache.tomcat.dbcp.dbcp2.BasicDataSourceFactory",
    "org.apache.commons.dbcp2.BasicDataSourceFactory"
  };

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
    tomcat.getEngine().setParentClassLoader(EmbeddedTomcat.class.getClassLoader());
    Connector connector = tomcat.getConnector();
    connector.setProperty("bindOnInit", "false");
    if (!wanted.bind.isEmpty()) {
      connector.setProperty("address", wanted.bind);
    }
    connector.setThrowOnFailure(true);
    wanted.users.forEach(tomcat::addUser);
    wanted.roles.forEach((role, users) -> users.forEach(user -> tomcat.addRole(user, role)));
    Context context = tomcat.addWebapp(wanted.path, wanted.archive.toString());
    context.addLifecycleListener(event -> withoutPages(event.getType(), context));
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

  /** The server offers compiled pages by default; without their compiler that is only noise. */
  private static void withoutPages(String event, Context context) {
    boolean compiler =
        EmbeddedTomcat.class
                .getClassLoader()
                .getResource("org/apache/jasper/servlet/JspServlet.class")
            != null;
    Container pages = context.findChild("jsp");
    if (event.equals(Lifecycle.BEFORE_START_EVENT) && !compiler && pages != null) {
      context.removeServletMapping("*.jsp");
      context.removeServletMapping("*.jspx");
      context.removeChild(pages);
    }
  }

  private static String innermost(Throwable e) {
    Throwable at = e;
    while (at.getCause() != null) {
      at = at.getCause();
    }
    return String.valueOf(at.getMessage());
  }

  private static String pool(String name) {
    for (String factory : POOLS) {
      try {
        return Class.forName(factory, false, EmbeddedTomcat.class.getClassLoader()).getName();
      } catch (ClassNotFoundException e) {
        continue;
      }
    }
    throw new Refusal(
        "Cannot offer data source "
            + name
            + ": no library of the archive holds a connection pool. Add tomcat-dbcp or"
            + " commons-dbcp2 to what runs standalone");
  }

  private static ContextResource dataSource(String name, Map<String, String> values) {
    ContextResource resource = new ContextResource();
    resource.setName(name);
    resource.setType("javax.sql.DataSource");
    resource.setAuth("Container");
    resource.setProperty("factory", pool(name));
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
