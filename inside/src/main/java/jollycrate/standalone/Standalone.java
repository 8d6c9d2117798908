package jollycrate.standalone;

import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.lang.reflect.InvocationTargetException;
import java.net.URISyntaxException;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Paths;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;

/**
 * Starts a WAR by {@code java -jar}: on the embedded server that stands in {@code
 * WEB-INF/standalone}, or by a main class of the application's own.
 */
public final class Standalone {
  private static final String SETTINGS = "WEB-INF/standalone/standalone.properties";
  private static final String LIBRARIES = "WEB-INF/standalone/";
  private static final String SERVER = "jollycrate.standalone.tomcat.EmbeddedTomcat";

  private final File archive;
  private final Properties packed = new Properties();

  private Standalone() throws IOException {
    try {
      archive =
          new File(Standalone.class.getProtectionDomain().getCodeSource().getLocation().toURI());
    } catch (URISyntaxException e) {
      throw new IOException(e);
    }
    try (ZipFile zip = new ZipFile(archive)) {
      ZipEntry entry = zip.getEntry(SETTINGS);
      if (entry != null) {
        try (InputStream in = zip.getInputStream(entry)) {
          packed.load(in);
        }
      }
    }
  }

  /** Runs until it is told to stop. */
  public static void main(String[] arguments) throws Throwable {
    try {
      Standalone standalone = new Standalone();
      String main = standalone.packed.getProperty("main", "");
      if (main.isEmpty()) {
        standalone.serve(arguments);
      } else {
        standalone.start(main, arguments);
      }
    } catch (Refusal e) {
      System.err.println(e.getMessage());
      System.exit(2);
    }
  }

  private void start(String main, String[] arguments) throws Throwable {
    Unpacked unpacked = new Unpacked();
    Runtime.getRuntime().addShutdownHook(new Thread(unpacked::delete));
    List<URL> path = unpacked.classPath(archive, "WEB-INF/classes/", "WEB-INF/lib/", LIBRARIES);
    ClassLoader loader = loader(path);
    try {
      loader.loadClass(main).getMethod("main", String[].class).invoke(null, (Object) arguments);
    } catch (InvocationTargetException e) {
      throw e.getCause();
    }
  }

  private static ClassLoader loader(List<URL> path) {
    ClassLoader loader =
        new URLClassLoader(path.toArray(new URL[0]), Standalone.class.getClassLoader());
    Thread.currentThread().setContextClassLoader(loader);
    return loader;
  }

  private void serve(String[] arguments) throws IOException, ReflectiveOperationException {
    Options options = new Options(packed, arguments);
    if (options.asksForHelp()) {
      System.out.println(Options.usage());
      return;
    }
    StandaloneServer.Wanted wanted;
    Unpacked unpacked = new Unpacked();
    Thread cleaning = new Thread(unpacked::delete);
    Runtime.getRuntime().addShutdownHook(cleaning);
    ClassLoader loader = loader(unpacked.classPath(archive, LIBRARIES));
    wanted =
        new StandaloneServer.Wanted(
            archive.toPath(),
            unpacked.folder(),
            options,
            dataSources(options),
            users(options),
            roles(options));
    StandaloneServer server =
        (StandaloneServer) loader.loadClass(SERVER).getDeclaredConstructor().newInstance();
    int port = server.start(wanted);
    Runtime.getRuntime().removeShutdownHook(cleaning);
    Runtime.getRuntime()
        .addShutdownHook(
            new Thread(
                () -> {
                  server.stop();
                  unpacked.delete();
                }));
    String host = wanted.bind.isEmpty() ? "localhost" : wanted.bind;
    System.out.println(
        packed.getProperty("title")
            + " answers at http://"
            + host
            + ":"
            + port
            + wanted.path
            + "/");
  }

  private static Map<String, Map<String, String>> dataSources(Options options) {
    Map<String, Map<String, String>> sources = new HashMap<>();
    for (String name : options.names("datasource.")) {
      Map<String, String> source = new HashMap<>();
      String key = "datasource." + name + ".";
      for (String part : Arrays.asList("url", "user", "max", "wait", "driver")) {
        source.put(part, options.packed(key + part));
      }
      source.put("password", secret(options.packed(key + "password"), "data source " + name));
      sources.put(name, source);
    }
    return sources;
  }

  private static Map<String, String> users(Options options) {
    Map<String, String> users = new HashMap<>();
    for (String name : options.names("user.")) {
      users.put(name, secret(options.packed("user." + name + ".password"), "user " + name));
    }
    return users;
  }

  private static Map<String, List<String>> roles(Options options) {
    Map<String, List<String>> roles = new HashMap<>();
    for (String name : options.names("role.")) {
      roles.put(name, Arrays.asList(options.packed("role." + name + ".users").split(",")));
    }
    return roles;
  }

  /** Resolves {@code env:NAME} and {@code file:PATH}; the archive itself holds no secret. */
  private static String secret(String reference, String owner) {
    if (reference.isEmpty()) {
      return "";
    }
    String place = reference.substring(reference.indexOf(':') + 1);
    if (reference.startsWith("env:")) {
      String value = System.getenv(place);
      if (value == null) {
        throw new Refusal(
            "Cannot start: the variable "
                + place
                + " is not set; it holds the password of "
                + owner
                + ". Set it and start again");
      }
      return value;
    }
    try {
      List<String> lines = Files.readAllLines(Paths.get(place), StandardCharsets.UTF_8);
      return lines.isEmpty() ? "" : lines.get(0);
    } catch (IOException e) {
      throw new Refusal(
          "Cannot start: the file '"
              + place
              + "' cannot be read; it holds the password of "
              + owner);
    }
  }
}
