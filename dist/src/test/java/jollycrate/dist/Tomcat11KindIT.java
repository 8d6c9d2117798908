package jollycrate.dist;

import org.junit.jupiter.api.Order;

/** Begun early, as it goes on long. */
@Order(1)
class Tomcat11KindIT extends KindContract {
  Tomcat11KindIT() {
    super(Line.ELEVEN);
  }
}
