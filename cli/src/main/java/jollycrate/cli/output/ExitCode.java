package jollycrate.cli.output;

import jollycrate.app.NotDescribedException;
import jollycrate.app.ProblemsException;
import jollycrate.artifact.ArtifactException;
import jollycrate.build.BuildException;
import jollycrate.control.ServerStartException;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.NotDeliveredException;
import jollycrate.host.HostException;
import jollycrate.host.LineCutException;
import jollycrate.host.UnreachableException;
import jollycrate.journal.LockedException;
import jollycrate.journal.OvertakenException;
import jollycrate.maven.MavenException;
import jollycrate.pack.PackException;
import jollycrate.secret.SecretException;
import jollycrate.stock.RecordsException;

/** What the process tells whoever started it. */
public enum ExitCode {
  DONE(0),
  INTERNAL_ERROR(1),
  USAGE(2),
  WRONG_FILE(3),
  BLOCKED(4),
  TAKEN_BACK(5),
  STUCK(6),
  CHECKS_FAILED(7),
  UNREACHABLE(8),
  LOCKED(9),
  INTERRUPTED(130);

  private final int code;

  ExitCode(int code) {
    this.code = code;
  }

  /** The number. */
  public int code() {
    return code;
  }

  /** For the end of a delivery. */
  public static ExitCode of(DeliveryOutcome outcome) {
    return switch (outcome.result()) {
      case DELIVERED,
          DELIVERED_UNPROVEN,
          CHANGED,
          CHANGED_UNPROVEN,
          STOPPED,
          REMOVED,
          UNCHANGED,
          DRY_RUN ->
          DONE;
      case BLOCKED -> BLOCKED;
      case TAKEN_BACK -> TAKEN_BACK;
      case INTERRUPTED -> INTERRUPTED;
      case STUCK -> STUCK;
      case CHECKS_FAILED -> nothingAnswered(outcome) ? UNREACHABLE : CHECKS_FAILED;
    };
  }

  private static boolean nothingAnswered(DeliveryOutcome outcome) {
    return outcome.checks().stream().allMatch(check -> check.status() == 0);
  }

  /** For a failure that people can fix; an internal error for everything else. */
  public static ExitCode of(Exception failure) {
    if (failure instanceof UnreachableException || failure instanceof LineCutException) {
      return UNREACHABLE;
    }
    if (failure instanceof ProblemsException
        || failure instanceof NotDescribedException
        || failure instanceof PackException) {
      return WRONG_FILE;
    }
    if (failure instanceof ArtifactException
        || failure instanceof BuildException
        || failure instanceof MavenException
        || failure instanceof SecretException
        || failure instanceof NotDeliveredException
        || failure instanceof HostException) {
      return BLOCKED;
    }
    if (failure instanceof ServerStartException) {
      return TAKEN_BACK;
    }
    if (failure instanceof RecordsException) {
      return STUCK;
    }
    return failure instanceof LockedException || failure instanceof OvertakenException
        ? LOCKED
        : INTERNAL_ERROR;
  }
}
