package jollycrate.wildfly;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Jvm;
import jollycrate.secret.SecretNames;

/** What the process of a WildFly was given by whoever started it. */
record GivenArguments(List<String> all) {
  private static final String CONFIGURATION = "standalone.xml";
  private static final String ADDRESS = "jboss.bind.address";
  private static final String HEAP = "-Xmx";
  private static final int KILO = 1024;

  /** Beginnings of options of Java that are no system properties. */
  private static final List<String> OPTIONS = List.of("-X", "-javaagent:", "-agentlib:");

  /** What its own script says by itself, and our command line does, too. */
  private static final List<String> BY_ITSELF =
      List.of(
          "jboss.home.dir",
          "jboss.server.",
          "jboss.modules.system.pkgs",
          "org.jboss.boot.log.file",
          "logging.configuration",
          "java.awt.headless",
          "[Standalone]",
          "jolly.");

  /** System properties, in their order. */
  Map<String, String> properties() {
    Map<String, String> properties = new LinkedHashMap<>();
    for (int i = 0; i < all.size(); i++) {
      String argument = all.get(i);
      if (argument.startsWith("-D")) {
        int equals = argument.indexOf('=');
        properties.put(
            argument.substring(2, equals < 0 ? argument.length() : equals),
            equals < 0 ? "" : argument.substring(equals + 1));
      } else if (argument.equals("-b") && i + 1 < all.size()) {
        properties.put(ADDRESS, all.get(i + 1));
      } else if (argument.startsWith("-b=")) {
        properties.put(ADDRESS, argument.substring("-b=".length()));
      } else if (argument.startsWith("-bmanagement=")) {
        properties.put(ADDRESS + ".management", argument.substring("-bmanagement=".length()));
      }
    }
    return properties;
  }

  /** The configuration that it reads, where that is not the usual one. */
  Optional<String> otherConfiguration() {
    for (int i = 0; i < all.size(); i++) {
      String argument = all.get(i);
      String told = argument.substring(argument.indexOf('=') + 1);
      boolean apart = argument.equals("-c") && i + 1 < all.size();
      boolean joined =
          List.of("-c=", "--server-config=", "--read-only-server-config=").stream()
              .anyMatch(argument::startsWith);
      String name = apart ? all.get(i + 1) : joined ? told : CONFIGURATION;
      if (!name.equals(CONFIGURATION)) {
        return Optional.of(name);
      }
    }
    return Optional.empty();
  }

  /** Its maximum heap with a unit; Java takes one in bytes, too. */
  Optional<String> memory() {
    return all.stream()
        .filter(argument -> argument.startsWith(HEAP))
        .map(argument -> argument.substring(HEAP.length()))
        .reduce((earlier, later) -> later)
        .map(size -> size.matches("\\d{4,15}") ? Long.parseLong(size) / KILO + "k" : size)
        .filter(Jvm::isSize);
  }

  /**
   * Options of Java that whoever starts it again has to give, too.
   *
   * @param described properties that its description says
   */
  List<String> further(List<String> described) {
    List<String> further = new ArrayList<>();
    all.stream()
        .filter(argument -> OPTIONS.stream().anyMatch(argument::startsWith))
        .filter(argument -> !argument.startsWith(HEAP))
        .forEach(further::add);
    properties()
        .forEach(
            (name, value) -> {
              if (isFurther(name) && !described.contains(name) && !SecretNames.match(name)) {
                further.add("-D" + name + (value.isEmpty() ? "" : "=" + value));
              }
            });
    return List.copyOf(further);
  }

  private static boolean isFurther(String property) {
    return BY_ITSELF.stream().noneMatch(property::startsWith);
  }

  /** Names of properties that hold a secret, and so are not written down. */
  List<String> secret() {
    return properties().keySet().stream()
        .filter(GivenArguments::isFurther)
        .filter(SecretNames::match)
        .toList();
  }
}
