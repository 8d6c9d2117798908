package jollycrate.step;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import jollycrate.host.Content;

/**
 * The steps from what stands to what is wanted.
 *
 * @param change up to the proof; taken back when the proof fails
 * @param tidy after the proof; finished even after a crash
 * @param contents of the files to be put, by path
 */
public record StepList(List<Step> change, List<Step> tidy, Map<Path, Content> contents) {

  /** Whether there is something to change, not only to look at. */
  public boolean changes() {
    return change.stream()
        .anyMatch(step -> !(step instanceof Step.Await) && !(step instanceof Step.RunChecks));
  }

  /** Whether what is wanted stands there. */
  public boolean isEmpty() {
    return change.isEmpty() && tidy.isEmpty();
  }
}
