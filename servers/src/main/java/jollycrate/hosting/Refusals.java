package jollycrate.hosting;

import java.util.ArrayList;
import java.util.List;
import jollycrate.server.Wanted;

/** What of an order cannot be kept. */
public final class Refusals {
  private final List<Wanted.Refused> all = new ArrayList<>();

  /** One more. */
  public void refuse(String subject, String message, String fix) {
    all.add(new Wanted.Refused(subject, message, fix));
  }

  /** Some more. */
  public void refuse(List<Wanted.Refused> more) {
    all.addAll(more);
  }

  /** All of them, in their order. */
  public List<Wanted.Refused> all() {
    return List.copyOf(all);
  }
}
