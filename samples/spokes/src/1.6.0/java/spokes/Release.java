package spokes;

import java.util.List;

/** Shows when a bike was promised, but nobody adds that column: its ticket list fails. */
final class Release {
  static final String VERSION = "1.6.0";

  /** Changes to the tables since the first release, each of which may be made again. */
  static final List<String> MIGRATIONS =
      List.of("ALTER TABLE ticket ADD COLUMN IF NOT EXISTS urgent BOOLEAN DEFAULT FALSE NOT NULL");

  static final String LIST_TICKETS =
      "SELECT id, bike, fault, mechanic, done, urgent, promised FROM ticket ORDER BY promised, id";

  private Release() {}
}
