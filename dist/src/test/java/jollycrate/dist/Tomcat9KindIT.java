package jollycrate.dist;

import org.junit.jupiter.api.Order;

/** Begun early, as it goes on long. */
@Order(1)
class Tomcat9KindIT extends KindContract {
  Tomcat9KindIT() {
    super(Line.NINE);
  }
}
