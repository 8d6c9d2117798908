package spokes;

import java.util.List;

/** Adds urgent tickets: a column with a default, so that the release before runs on it too. */
final class Release {
  static final String VERSION = "1.5.0";

  /** Changes to the tables since the first release, each of which may be made again. */
  static final List<String> MIGRATIONS =
      List.of("ALTER TABLE ticket ADD COLUMN IF NOT EXISTS urgent BOOLEAN DEFAULT FALSE NOT NULL");

  static final String LIST_TICKETS =
      "SELECT id, bike, fault, mechanic, done, urgent FROM ticket ORDER BY urgent DESC, id";

  private Release() {}
}
