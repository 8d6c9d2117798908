package jollycrate.server;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * What a kind wants to stand on a server for one order.
 *
 * @param placement where the release will answer
 * @param pieces folders before what stands in them
 * @param swap how this release takes the place of another
 * @param refused values that cannot reach the server unchanged, each with its place and fix
 * @param doubts what is done, and is not as good as on servers of other kinds
 * @param hidden values that people must not see, with what is shown instead
 */
public record Wanted(
    Placement placement,
    List<Piece> pieces,
    Swap swap,
    List<Refused> refused,
    List<Refused> doubts,
    Map<String, String> hidden) {

  /** Without a doubt. */
  public Wanted(
      Placement placement,
      List<Piece> pieces,
      Swap swap,
      List<Refused> refused,
      Map<String, String> hidden) {
    this(placement, pieces, swap, refused, List.of(), hidden);
  }

  /** The same with pieces before all others. */
  public Wanted after(List<Piece> more) {
    List<Piece> all = new ArrayList<>(more);
    all.addAll(pieces);
    return of(List.copyOf(all));
  }

  /** The same with other pieces. */
  public Wanted of(List<Piece> others) {
    return new Wanted(placement, others, swap, refused, doubts, hidden);
  }

  /** A value that cannot be kept, or not as people would think. */
  public record Refused(String subject, String message, String fix) {}
}
