package jollycrate.tomcat;

import java.time.Duration;
import java.util.Optional;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;

/** What {@code conf/server.xml} says. */
final class ServerXml {
  /** Tomcat's own default for the background processor's delay. */
  private static final int DEFAULT_DELAY_SECONDS = 10;

  /** Tomcat ignores a change younger than this (HostConfig's file modification resolution). */
  private static final Duration RESOLUTION = Duration.ofSeconds(1);

  private final XmlDocument document;

  ServerXml(byte[] bytes) {
    this.document = XmlDocument.parse("conf/server.xml", bytes);
  }

  /** Longest time until the running server has looked at a changed descriptor. */
  Duration notice(Listener listener) {
    int seconds =
        engine(listener)
            .map(engine -> engine.value("backgroundProcessorDelay", ""))
            .filter(value -> value.matches("\\d{1,4}"))
            .map(Integer::parseInt)
            .orElse(DEFAULT_DELAY_SECONDS);
    return Duration.ofSeconds(2L * seconds).plus(RESOLUTION);
  }

  /** The realm that the listener's own users come from, as it is written. */
  Optional<String> realm(Listener listener) {
    return engine(listener)
        .flatMap(engine -> engine.child("Realm"))
        .map(realm -> document.text().substring(realm.start(), realm.end()));
  }

  private Optional<XmlElement> engine(Listener listener) {
    return document.root().descendants("Engine").stream()
        .filter(engine -> engine.value("name", "").equals(listener.engine()))
        .findFirst();
  }
}
