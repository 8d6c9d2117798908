package jollycrate.delivery;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.Glance;
import jollycrate.host.HostException;
import jollycrate.host.Sight;
import jollycrate.json.Json;
import jollycrate.watch.Site;

/**
 * What was told at the end of each of the last deliveries, so that it can be told again.
 *
 * @param site the server they went to
 */
record Told(Site site) {
  private static final int MOST = 100;
  private static final int MOST_WITH_PICTURES = 10;
  private static final int MOST_BYTES = 16 << 20;

  /** Keeps it, masked; a delivery does not fail for it, but why it could not be is said. */
  Optional<String> keepOrWhyNot(DeliveryOutcome outcome) {
    Path folder = site.records().told();
    String text = Json.line(site.secrets().mask(Json.tree(outcome)));
    try {
      site.host().sight().together(() -> keep(folder, outcome.number(), text));
      if (outcome.checks().stream().anyMatch(check -> !check.picture().isEmpty())) {
        forgetPictures(outcome.number() - MOST_WITH_PICTURES);
      }
      return Optional.empty();
    } catch (HostException e) {
      return Optional.of("what is told here could not be kept: " + e.getMessage());
    }
  }

  private void keep(Path folder, int number, String text) {
    Access access = site.recordAccess();
    if (!site.files().facts(folder).exists()) {
      site.files().makeFolder(folder, site.files().facts(site.server().folder()).access());
    }
    site.files().put(document(number), Content.of(text), access);
    site.files().delete(document(number - MOST));
  }

  /** They are most of what is kept, and of a delivery long ago nobody asks for them. */
  private void forgetPictures(int delivery) {
    byte[] kept = site.files().read(document(delivery), 0, MOST_BYTES);
    Json.read(kept, JsonNode.class)
        .ifPresent(
            told -> {
              for (JsonNode check : told.path("checks")) {
                ((ObjectNode) check).put("picture", "");
              }
              site.files()
                  .put(document(delivery), Content.of(Json.line(told)), site.recordAccess());
            });
  }

  /** Of several deliveries, as far as it is kept; read in one go. */
  List<DeliveryOutcome> all(List<Integer> deliveries) {
    Sight sight = site.host().sight();
    return sight.once(
        () -> {
          sight.ahead(
              new Glance().wholes(deliveries.stream().map(this::document).toList(), MOST_BYTES));
          return deliveries.stream().flatMap(number -> of(number).stream()).toList();
        });
  }

  /** Of a delivery; empty when nothing is kept of it, as of one that was cut off. */
  Optional<DeliveryOutcome> of(int delivery) {
    return Json.read(site.files().read(document(delivery), 0, MOST_BYTES), DeliveryOutcome.class);
  }

  private Path document(int delivery) {
    return site.records().told().resolve(delivery + ".json");
  }
}
