package jollycrate.foresee;

import java.util.Comparator;
import java.util.List;

/** All rules together. */
public final class Foresight {
  private static final List<Rule> RULES =
      List.of(
          new ProcessRule(),
          new ArtifactRule(),
          new DataSourceRule(),
          new EntryRule(),
          new UserRule(),
          new PlaceRule(),
          new CheckRule(),
          new PortRule(),
          new PieceRule(),
          new FrontRule(),
          new AccountRule(),
          new BootRule());

  private Foresight() {}

  /** Everything foreseen, blockers first. */
  public static List<Finding> look(Scene scene) {
    return RULES.stream()
        .flatMap(rule -> rule.look(scene).stream())
        .sorted(Comparator.comparing(Finding::level))
        .toList();
  }
}
