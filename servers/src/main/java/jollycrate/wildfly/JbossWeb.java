package jollycrate.wildfly;

import jollycrate.hosting.InnerDescriptor;

/**
 * {@code WEB-INF/jboss-web.xml}, from which WildFly takes where an application answers and what it
 * finds by which name.
 */
record JbossWeb(InnerDescriptor text) {
  static final String PATH = "WEB-INF/jboss-web.xml";
  static final String EMPTY = "<jboss-web>\n</jboss-web>\n";

  void answersAt(String contextPath) {
    text.set("context-root", contextPath.isEmpty() ? "/" : contextPath);
  }

  /** A server of the web container, and a host of it. */
  void listensAt(String server, String host) {
    text.set("server-instance", server);
    text.set("virtual-host", host);
  }

  void dataSource(String name, String boundAt) {
    text.put(
        "resource-ref",
        "res-ref-name",
        name,
        "res-type",
        "javax.sql.DataSource",
        "jndi-name",
        boundAt);
  }

  /** Two passes each take two dollars for one, and read what stands in braces behind one. */
  void entry(String name, String type, String value) {
    text.put(
        "env-entry",
        "env-entry-name",
        name,
        "env-entry-type",
        type,
        "env-entry-value",
        value.replace("$", "$$$$"));
  }
}
