package jollycrate.tomcat;

import java.util.ArrayList;
import java.util.List;
import jollycrate.artifact.Artifact;
import jollycrate.hosting.DerivedWar;
import jollycrate.server.Wanted;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/**
 * Data sources of an application in whose place a TomEE gives another one, and logs nothing by
 * which that would be seen afterwards: they are refused before.
 */
record TomeeSources(Artifact artifact) {
  private static final String WEB = "WEB-INF/web.xml";
  private static final String PERSISTENCE = "persistence.xml";

  /** What is refused. */
  List<Wanted.Refused> refused() {
    List<Wanted.Refused> refused = new ArrayList<>();
    artifact.web().dataSources().stream()
        .filter(declared -> declared.where().contains(PERSISTENCE))
        .map(
            declared ->
                new Wanted.Refused(
                    declared.name(),
                    "a TomEE gives a persistence unit a database of its own making in place of this"
                        + " one ("
                        + declared.where()
                        + ")",
                    "Deliver it to a server of another kind"))
        .forEach(refused::add);
    new DerivedWar(artifact).text(WEB).ifPresent(bytes -> refused.addAll(named(bytes)));
    return refused;
  }

  /** Names of others than the application's own environment, where it tells that it tells all. */
  private static List<Wanted.Refused> named(byte[] web) {
    try {
      XmlElement root = XmlDocument.parse(WEB, web).root();
      boolean complete = root.value("metadata-complete", "false").equals("true");
      return root.children("resource-ref").stream()
          .filter(ref -> complete && ref.childText("res-type").equals("javax.sql.DataSource"))
          .map(ref -> ref.childText("res-ref-name"))
          .filter(name -> name.startsWith("java:") && !name.startsWith(Artifact.ENVIRONMENT))
          .map(
              name ->
                  new Wanted.Refused(
                      name,
                      "a TomEE gives any data source that it has in place of this one, and says"
                          + " nothing of it where "
                          + WEB
                          + " is metadata-complete",
                      "Ask for it by a name below "
                          + Artifact.ENVIRONMENT
                          + ", and describe it in jolly.toml"))
          .toList();
    } catch (XmlException broken) {
      return List.of();
    }
  }
}
