package jollycrate.server;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/**
 * What is to be changed of a server itself, apart from applications. Its files stay its own: nobody
 * takes these changes back later but by another one.
 *
 * @param files that are to stand as they are given here; a text of somebody else is given whole,
 *     with only what is asked for in it changed
 * @param seen digests of texts that these were made of, by path
 * @param gone files that are to be gone
 * @param done what was found, and what is done about it
 * @param left what was found and stays for people
 * @param refused what keeps all of it from being done
 * @param hidden values that people must not see, with what is shown instead
 */
public record Overhaul(
    List<Piece.WholeFile> files,
    Map<Path, String> seen,
    List<Path> gone,
    List<SelfDescription.Doubt> done,
    List<SelfDescription.Doubt> left,
    List<Wanted.Refused> refused,
    Map<String, String> hidden) {

  /** Nothing needs to be changed in its files. */
  public static final Overhaul NONE =
      new Overhaul(List.of(), Map.of(), List.of(), List.of(), List.of(), List.of(), Map.of());

  /** It cannot be done. */
  public static Overhaul refused(Wanted.Refused why) {
    return new Overhaul(
        List.of(), Map.of(), List.of(), List.of(), List.of(), List.of(why), Map.of());
  }
}
