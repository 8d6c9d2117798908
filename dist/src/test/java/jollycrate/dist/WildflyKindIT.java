package jollycrate.dist;

import org.junit.jupiter.api.Order;

/** Begun early, as it goes on long. */
@Order(1)
class WildflyKindIT extends KindContract {
  WildflyKindIT() {
    super(Line.WILDFLY);
  }
}
