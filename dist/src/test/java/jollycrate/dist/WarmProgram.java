package jollycrate.dist;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.lang.reflect.Constructor;
import java.lang.reflect.Method;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/**
 * The built program's own jars, run in this process by a class loader of their own: a start of Java
 * for each command would be three quarters of the time that the tests take.
 */
final class WarmProgram {
  private static final WarmProgram ONE = new WarmProgram();

  private final ClassLoader jars;
  private final Constructor<?> program;
  private final Constructor<?> interrupts;
  private final Method run;
  private final Method setting;
  private final Method in;
  private final Method keeping;

  private WarmProgram() {
    System.setProperty("jolly.home", Program.HOME.toString());
    try (Stream<Path> files = Files.list(Program.HOME.resolve("lib"))) {
      List<URL> urls = new ArrayList<>();
      for (Path jar : files.sorted().toList()) {
        urls.add(jar.toUri().toURL());
      }
      jars = new URLClassLoader(urls.toArray(URL[]::new), ClassLoader.getPlatformClassLoader());
      Class<?> settings = jars.loadClass("jollycrate.app.Setting");
      Class<?> asked = jars.loadClass("jollycrate.watch.Interrupts");
      Class<?> jolly = jars.loadClass("jollycrate.cli.Jolly");
      program =
          jolly.getConstructor(
              PrintStream.class, PrintStream.class, settings, UnaryOperator.class, asked);
      interrupts = asked.getConstructor();
      run = jolly.getMethod("run", String[].class);
      setting = settings.getMethod("ofThisProcess");
      in = settings.getMethod("in", Path.class);
      keeping = settings.getMethod("keeping", Path.class);
    } catch (IOException | ReflectiveOperationException e) {
      throw new AssertionError(e);
    }
  }

  /** Runs a command in a folder, by an environment with what this process has. */
  static Program.Run run(Path folder, Map<String, String> environment, String... args) {
    return ONE.ran(folder, environment, args);
  }

  private Program.Run ran(Path folder, Map<String, String> environment, String... args) {
    Thread thread = Thread.currentThread();
    ClassLoader before = thread.getContextClassLoader();
    thread.setContextClassLoader(jars);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ByteArrayOutputStream err = new ByteArrayOutputStream();
    try (PrintStream told = new PrintStream(out, true, StandardCharsets.UTF_8);
        PrintStream noted = new PrintStream(err, true, StandardCharsets.UTF_8)) {
      UnaryOperator<String> variables =
          name -> environment.containsKey(name) ? environment.get(name) : System.getenv(name);
      Object place = in.invoke(setting.invoke(null), folder.toAbsolutePath());
      Object kept = keeping.invoke(place, Path.of(environment.get(Program.DATA)));
      Object jolly = program.newInstance(told, noted, kept, variables, interrupts.newInstance());
      int exit = (int) run.invoke(jolly, (Object) args);
      return new Program.Run(
          exit, out.toString(StandardCharsets.UTF_8), err.toString(StandardCharsets.UTF_8));
    } catch (ReflectiveOperationException e) {
      throw new AssertionError(String.join(" ", args), e);
    } finally {
      thread.setContextClassLoader(before);
    }
  }
}
