package jollycrate.dist;

import org.junit.jupiter.api.Order;

/** Begun early, as it goes on long. */
@Order(1)
class JettyKindIT extends KindContract {
  JettyKindIT() {
    super(Line.JETTY);
  }
}
