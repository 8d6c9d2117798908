package spokes;

import java.util.List;

/** The release that the workshop opened with. */
final class Release {
  static final String VERSION = "1.4.0";

  /** Changes to the tables since the first release, each of which may be made again. */
  static final List<String> MIGRATIONS = List.of();

  static final String LIST_TICKETS =
      "SELECT id, bike, fault, mechanic, done FROM ticket ORDER BY id";

  private Release() {}
}
