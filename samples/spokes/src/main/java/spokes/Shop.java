package spokes;

import jakarta.servlet.MultipartConfigElement;
import jakarta.servlet.http.HttpServlet;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import org.apache.catalina.Context;
import org.apache.catalina.LifecycleException;
import org.apache.catalina.Wrapper;
import org.apache.catalina.authenticator.BasicAuthenticator;
import org.apache.catalina.startup.Tomcat;
import org.apache.tomcat.util.descriptor.web.ContextResource;
import org.apache.tomcat.util.descriptor.web.LoginConfig;
import org.apache.tomcat.util.descriptor.web.SecurityCollection;
import org.apache.tomcat.util.descriptor.web.SecurityConstraint;

/**
 * The workshop as a program of its own, on an embedded server: {@code --port} and {@code --bind}
 * say where it listens, the system properties {@code spokes.url} and {@code spokes.user} and the
 * variables {@code SPOKES_DB_PASSWORD}, {@code ROBIN_PASSWORD} and {@code MIA_PASSWORD} what it
 * needs.
 */
public final class Shop {
  private static final String PATH = "/spokes";

  private Shop() {}

  public static void main(String[] arguments) throws IOException, LifecycleException {
    Tomcat tomcat = new Tomcat();
    tomcat.setBaseDir(Files.createTempDirectory("spokes").toString());
    tomcat.setPort(Integer.parseInt(argument(arguments, "--port=", "8080")));
    tomcat.getConnector().setProperty("address", argument(arguments, "--bind=", "127.0.0.1"));
    tomcat.setSilent(true);
    tomcat.enableNaming();
    Context context = tomcat.addContext(PATH, Path.of("").toAbsolutePath().toString());
    context.getNamingResources().addResource(database());
    context.addApplicationListener(Opening.class.getName());
    page(context, "front", new FrontPage(), "");
    page(context, "health", new HealthPage(), "/health");
    page(context, "ledger", new LedgerPage(), "/ledger");
    page(context, "counter", new CounterPage(), "/counter", "/counter/photos")
        .setMultipartConfigElement(new MultipartConfigElement("", 1_000_000, -1, 1_000_000));
    page(context, "tickets", new TicketsApi(), "/api/tickets/*");
    page(context, "looks", new Looks(), "*.css", "*.js", "*.svg");
    guard(tomcat, context);
    tomcat.start();
    System.out.println(
        "The workshop is open at http://127.0.0.1:" + tomcat.getConnector().getPort() + PATH);
    tomcat.getServer().await();
  }

  private static String argument(String[] arguments, String name, String otherwise) {
    return Arrays.stream(arguments)
        .filter(argument -> argument.startsWith(name))
        .map(argument -> argument.substring(name.length()))
        .findFirst()
        .orElse(otherwise);
  }

  private static ContextResource database() {
    ContextResource resource = new ContextResource();
    resource.setName("jdbc/spokes");
    resource.setType("javax.sql.DataSource");
    resource.setAuth("Container");
    resource.setProperty("factory", "org.apache.tomcat.dbcp.dbcp2.BasicDataSourceFactory");
    resource.setProperty("driverClassName", "org.h2.Driver");
    resource.setProperty("url", System.getProperty("spokes.url", "jdbc:h2:mem:spokes"));
    resource.setProperty("username", System.getProperty("spokes.user", "spokes"));
    resource.setProperty("password", System.getenv("SPOKES_DB_PASSWORD"));
    return resource;
  }

  private static Wrapper page(
      Context context, String name, HttpServlet servlet, String... patterns) {
    Wrapper wrapper = Tomcat.addServlet(context, name, servlet);
    Arrays.stream(patterns).forEach(wrapper::addMapping);
    return wrapper;
  }

  private static void guard(Tomcat tomcat, Context context) {
    SecurityCollection pages = new SecurityCollection();
    pages.addPattern("/ledger");
    SecurityConstraint constraint = new SecurityConstraint();
    constraint.addCollection(pages);
    constraint.addAuthRole("owner");
    context.addConstraint(constraint);
    context.addSecurityRole("owner");
    context.setLoginConfig(new LoginConfig("BASIC", "Spokes", null, null));
    context.getPipeline().addValve(new BasicAuthenticator());
    tomcat.addUser("robin", System.getenv("ROBIN_PASSWORD"));
    tomcat.addRole("robin", "owner");
    tomcat.addUser("mia", System.getenv("MIA_PASSWORD"));
    tomcat.addRole("mia", "mechanic");
  }
}
