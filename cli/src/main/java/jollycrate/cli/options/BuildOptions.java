package jollycrate.cli.options;

import jollycrate.build.BuildMode;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Option;

/** Whether the project is built first. */
public final class BuildOptions {
  @ArgGroup private Choice choice = new Choice();

  /** At most one of them. */
  static final class Choice {
    @Option(
        names = "--build",
        description = "Run [build] first; else only when sources are newer than results.")
    private boolean build;

    @Option(names = "--no-build", description = "Take what is built, whatever its age.")
    private boolean noBuild;
  }

  /** What was asked for. */
  public BuildMode mode() {
    if (choice.noBuild) {
      return BuildMode.NEVER;
    }
    return choice.build ? BuildMode.ALWAYS : BuildMode.WHEN_STALE;
  }
}
