package jollycrate.app;

import java.util.List;
import java.util.stream.Collectors;

/** Everything wrong in the files that people wrote. */
public final class ProblemsException extends RuntimeException {
  private static final long serialVersionUID = 1L;
  private final transient List<Problem> problems;

  /** With at least one problem. */
  public ProblemsException(List<Problem> problems) {
    super(problems.stream().map(Problem::toString).collect(Collectors.joining("\n")));
    this.problems = List.copyOf(problems);
  }

  /** In the order of the file. */
  public List<Problem> problems() {
    return problems;
  }
}
