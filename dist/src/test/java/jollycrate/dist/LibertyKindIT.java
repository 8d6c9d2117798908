package jollycrate.dist;

import org.junit.jupiter.api.Order;

/** Begun early, as it goes on long. */
@Order(1)
class LibertyKindIT extends KindContract {
  LibertyKindIT() {
    super(Line.LIBERTY);
  }
}
