package jollycrate.insideglassfish;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.Arrays;
import java.util.List;

/**
 * Starts a GlassFish in a root of its own inside the server's folder, which gets a fresh copy of
 * the configuration at each start: the server writes what it deployed into its configuration, and
 * would deploy that again whatever stands there by then.
 */
public final class Start {
  private static final String MAIN = "com.sun.enterprise.glassfish.bootstrap.ASMain";
  private static final String CONFIG = "config";
  private static final List<String> MADE_AGAIN = List.of("applications", "generated");
  private static final String NOTED = ".autodeploystatus";

  /** What it writes behind the name of an archive, to say what became of it. */
  private static final String MARKS =
      "glob:**_{deployed,deployFailed,undeployed,undeployFailed,pending}";

  /** Our class is below everything else that runs: what it may not do, nobody may. */
  private static final String TRUSTED =
      "\ngrant codeBase \"%s\" { permission java.security.AllPermission; };\n";

  private Start() {}

  /**
   * Prepares the root, then runs the server.
   *
   * @param arguments folder of the server, root, shipped configuration; the rest goes on
   */
  public static void main(String[] arguments) throws Exception {
    Path folder = Path.of(arguments[0]);
    Path root = Path.of(arguments[1]);
    prepare(folder, root, Path.of(arguments[2]));
    String[] rest = Arrays.copyOfRange(arguments, 3, arguments.length);
    Class.forName(MAIN).getMethod("main", String[].class).invoke(null, (Object) rest);
  }

  static void prepare(Path folder, Path root, Path shipped) throws IOException {
    for (String name : MADE_AGAIN) {
      clear(root.resolve(name));
    }
    for (String name : List.of(CONFIG, "docroot", "autodeploy/bundles")) {
      Files.createDirectories(root.resolve(name));
    }
    copy(shipped, root.resolve(CONFIG));
    copy(folder.resolve("configuration"), root.resolve(CONFIG));
    Files.writeString(
        root.resolve(CONFIG).resolve("server.policy"),
        TRUSTED.formatted(Start.class.getProtectionDomain().getCodeSource().getLocation()),
        StandardOpenOption.APPEND);
    Path libraries = root.resolve("lib");
    if (!Files.isSymbolicLink(libraries)) {
      Files.createSymbolicLink(libraries, folder.resolve("lib"));
    }
    Path deployments = folder.resolve("deployments");
    try (DirectoryStream<Path> files = Files.newDirectoryStream(deployments)) {
      for (Path file : files) {
        if (file.getFileSystem().getPathMatcher(MARKS).matches(file)) {
          Files.delete(file);
        }
      }
    }
    clear(deployments.resolve(NOTED));
  }

  private static void copy(Path from, Path to) throws IOException {
    try (DirectoryStream<Path> files = Files.newDirectoryStream(from, Files::isRegularFile)) {
      for (Path file : files) {
        Files.copy(file, to.resolve(file.getFileName()), StandardCopyOption.REPLACE_EXISTING);
      }
    }
  }

  /** Leaves the folder itself. */
  private static void clear(Path folder) throws IOException {
    if (!Files.isDirectory(folder)) {
      return;
    }
    Files.walkFileTree(
        folder,
        new SimpleFileVisitor<>() {
          @Override
          public FileVisitResult visitFile(Path file, BasicFileAttributes facts)
              throws IOException {
            Files.delete(file);
            return FileVisitResult.CONTINUE;
          }

          @Override
          public FileVisitResult postVisitDirectory(Path left, IOException failed)
              throws IOException {
            if (failed != null) {
              throw failed;
            }
            if (!left.equals(folder)) {
              Files.delete(left);
            }
            return FileVisitResult.CONTINUE;
          }
        });
  }
}
