package jollycrate.service;

import java.util.Map;
import java.util.Optional;
import jollycrate.secret.Reference;

/** What the references of a description stand for. */
record References(Map<Reference, String> values) {
  /** The value that a text refers to; empty when it is no reference. */
  Optional<String> referred(String text) {
    return values.entrySet().stream()
        .filter(known -> known.getKey().text().equals(text))
        .map(Map.Entry::getValue)
        .findFirst();
  }
}
