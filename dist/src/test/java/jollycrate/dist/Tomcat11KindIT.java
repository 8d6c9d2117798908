package jollycrate.dist;

import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

/** A Tomcat as 9.0 is one: run with {@code -Djolly.tomcats=all}, for which CI has no time. */
@Order(1)
@EnabledIfSystemProperty(named = "jolly.tomcats", matches = "all")
class Tomcat11KindIT extends KindContract {
  Tomcat11KindIT() {
    super(Line.ELEVEN);
  }
}
