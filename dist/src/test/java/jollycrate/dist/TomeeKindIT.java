package jollycrate.dist;

import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

/** A Tomcat with more in it: run with {@code -Djolly.tomcats=all}, for which CI has no time. */
@Order(1)
@EnabledIfSystemProperty(named = "jolly.tomcats", matches = "all")
class TomeeKindIT extends KindContract {
  TomeeKindIT() {
    super(Line.TOMEE);
  }
}
