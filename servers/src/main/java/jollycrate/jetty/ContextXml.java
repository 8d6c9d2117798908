package jollycrate.jetty;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import jollycrate.app.DataSource;
import jollycrate.file.Digests;
import jollycrate.secret.Secrets;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/**
 * The descriptor that carries a whole application, in Jetty's own XML. What Jetty lacks, a pool of
 * connections and users with salted hashes, comes from archives of ours: they are loaded beside the
 * application, which sees neither them nor its drivers, and end with it.
 */
final class ContextXml {
  private static final String HEAD =
      """
      <?xml version="1.0" encoding="UTF-8"?>
      <!DOCTYPE Configure PUBLIC "-//Jetty//Configure//EN" "https://jetty.org/configure_10_0.dtd">
      """;
  private static final String LOADER =
      """
        <Call class="java.lang.Thread" name="currentThread">
          <Get id="above" name="contextClassLoader"/>
        </Call>
        <New id="beside" class="java.net.URLClassLoader">
          <Arg><Array type="java.net.URL">
      %s    </Array></Arg>
          <Arg><Ref refid="above"/></Arg>
        </New>
        <Call class="java.lang.Thread" name="currentThread">
          <Set name="contextClassLoader"><Ref refid="beside"/></Set>
        </Call>
      """;
  private static final String LOADED =
      """
        <Call class="java.lang.Thread" name="currentThread">
          <Set name="contextClassLoader"><Ref refid="above"/></Set>
        </Call>
      """;
  private static final String SECRET = "secret";
  private static final String PASSWORD = "password";
  private static final String JAVA_LANG = "java.lang.";
  private static final String STRING = "String";

  /** Which argument of an environment entry its value is, or holds it. */
  private static final int VALUE = 2;

  private final String contextClass;
  private final StringBuilder settings = new StringBuilder();
  private final StringBuilder beside = new StringBuilder();
  private final StringBuilder bound = new StringBuilder();
  private Set<Path> archives = Set.of();

  ContextXml(Environment environment) {
    this.contextClass = environment.contextClass();
  }

  void application(String contextPath, Path archive) {
    set("contextPath", contextPath.isEmpty() ? "/" : contextPath);
    set("war", archive.toString());
  }

  /** Of an application that changes in its place: another stamp makes another descriptor. */
  void unfolded(String stamp) {
    settings.append("  <!-- content ").append(stamp).append(" -->\n");
  }

  /** Where it answers: names of hosts, {@code @} and the name of a connector, or both. */
  void answersAt(String virtualHost) {
    settings
        .append("  <Call name=\"addVirtualHosts\"><Arg><Array type=\"String\"><Item>")
        .append(escape(virtualHost))
        .append("</Item></Array></Arg></Call>\n");
  }

  /** Archives that hold what is ours, and the drivers. */
  void archives(Set<Path> files) {
    this.archives = files;
  }

  void dataSource(String application, DataSource source, String driver, String password) {
    String id = "pool-" + brief(source.jndiName());
    beside
        .append("  <New id=\"")
        .append(id)
        .append("\" class=\"jollycrate.insidejetty.Connections\">\n");
    List.of(application + " " + source.jndiName(), driver, source.url())
        .forEach(value -> beside.append("    ").append(argument(value)).append('\n'));
    if (!source.user().isEmpty()) {
      beside.append("    ").append(typed("Set name=\"user\"", source.user())).append('\n');
    }
    beside.append("    ").append(typed("Set name=\"" + PASSWORD + "\"", password)).append('\n');
    beside.append("    <Set name=\"most\">").append(source.most()).append("</Set>\n");
    beside.append("    <Set name=\"patience\">").append(source.patience().toMillis());
    beside.append("</Set>\n  </New>\n");
    bound.append("  <Call name=\"addBean\"><Arg><Ref refid=\"").append(id);
    bound.append("\"/></Arg><Arg type=\"boolean\">true</Arg></Call>\n");
    entry(source.jndiName(), "", "<Arg><Ref refid=\"" + id + "\"/></Arg>");
  }

  /** An environment entry; what web.xml says for it does not count. */
  void entry(String name, String type, String value, boolean secret) {
    String shortType = type.startsWith(JAVA_LANG) ? type.substring(JAVA_LANG.length()) : STRING;
    String object =
        switch (shortType) {
          case STRING -> argument(value);
          case "Character" -> made(shortType, "<Arg type=\"char\">" + escape(value) + "</Arg>");
          default -> made(shortType, argument(value));
        };
    entry(name, secret ? " id=\"" + SECRET + "-" + brief(name) + "\"" : "", object);
  }

  private static String made(String shortType, String of) {
    String type = JAVA_LANG + shortType;
    return "<Arg><Call class=\"" + type + "\" name=\"valueOf\">" + of + "</Call></Arg>";
  }

  private void entry(String name, String id, String object) {
    bound.append(
        """
          <New class="org.eclipse.jetty.plus.jndi.EnvEntry"%s>
            <Arg><Ref refid="application"/></Arg>
            %s
            %s
            <Arg type="boolean">true</Arg>
          </New>
        """
            .formatted(id, argument(name), object));
  }

  /** Nobody may log in: without anybody to ask, an application that asks would not start. */
  void nobody() {
    bound.append(
        """
          <Get name="securityHandler">
            <Set name="loginService"><New class="org.eclipse.jetty.security.EmptyLoginService"/></Set>
          </Get>
        """);
  }

  /** Users of the application, in place of those whom the server knows. */
  void users(String realm, Path file) {
    beside.append("  <New id=\"users\" class=\"jollycrate.insidejetty.Users\">\n    ");
    beside.append(argument(realm)).append("\n    ").append(argument(file.toString()));
    beside.append("\n  </New>\n");
    bound.append("  <Get name=\"securityHandler\">\n");
    bound.append("    <Set name=\"loginService\"><Ref refid=\"users\"/></Set>\n  </Get>\n");
  }

  /** The text but for the folder that the server unpacks it in, whose name depends on it. */
  String stamp() {
    return brief(text(Optional.empty()));
  }

  byte[] text(Path unpackedIn) {
    return text(Optional.of(unpackedIn)).getBytes(StandardCharsets.UTF_8);
  }

  private static String brief(String text) {
    return Digests.brief(Digests.of(text.getBytes(StandardCharsets.UTF_8)));
  }

  private String text(Optional<Path> unpackedIn) {
    StringBuilder xml = new StringBuilder(HEAD);
    xml.append("<Configure id=\"application\" class=\"").append(contextClass).append("\">\n");
    xml.append(settings);
    unpackedIn.ifPresent(
        folder ->
            xml.append("  ")
                .append(typed("Set name=\"tempDirectory\"", folder.toString()))
                .append('\n'));
    if (!beside.isEmpty()) {
      StringBuilder items = new StringBuilder();
      for (Path archive : archives) {
        items
            .append("      <Item type=\"URL\">")
            .append(escape(archive.toUri().toString()))
            .append("</Item>\n");
      }
      xml.append(LOADER.formatted(items)).append(beside).append(LOADED);
    }
    return xml.append(bound).append("</Configure>\n").toString();
  }

  private void set(String name, String value) {
    settings.append("  ").append(typed("Set name=\"" + name + "\"", value)).append('\n');
  }

  private static String argument(String value) {
    return typed("Arg", value);
  }

  /** Only what is typed as a text reaches Jetty with the blanks around it. */
  private static String typed(String element, String value) {
    String name = element.replaceFirst(" .*", "");
    return "<" + element + " type=\"String\">" + escape(value) + "</" + name + ">";
  }

  private static String escape(String value) {
    return XmlDocument.escape(value);
  }

  /** Values in a descriptor that people must not see; none in one that somebody broke. */
  static Map<String, String> secretsIn(byte[] descriptor) {
    Map<String, String> secrets = new HashMap<>();
    try {
      XmlElement root = XmlDocument.parse("descriptor", descriptor).root();
      List<XmlElement> hidden = new ArrayList<>();
      root.descendants("Set").stream()
          .filter(set -> set.value("name", "").equals(PASSWORD))
          .forEach(hidden::add);
      root.descendants("New").stream()
          .filter(entry -> entry.value("id", "").startsWith(SECRET))
          .flatMap(entry -> entry.descendants("Arg").stream().skip(VALUE))
          .filter(argument -> !argument.value("type", "").equals("boolean"))
          .forEach(hidden::add);
      hidden.stream()
          .map(XmlElement::text)
          .filter(text -> !text.isEmpty())
          .forEach(text -> secrets.put(text, Secrets.HIDDEN));
    } catch (XmlException broken) {
      return Map.of();
    }
    return secrets;
  }
}
