package jollycrate.service;

import java.util.ArrayList;
import java.util.List;
import jollycrate.server.Wanted;

/** What of an order cannot be kept. */
final class Refusals {
  private final List<Wanted.Refused> all = new ArrayList<>();

  void refuse(String subject, String message, String fix) {
    all.add(new Wanted.Refused(subject, message, fix));
  }

  List<Wanted.Refused> all() {
    return List.copyOf(all);
  }
}
