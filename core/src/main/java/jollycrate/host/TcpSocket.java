package jollycrate.host;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.HexFormat;
import java.util.stream.Stream;

/**
 * A line of the kernel's tables of TCP sockets, {@code /proc/net/tcp} and {@code tcp6}; see
 * proc(5).
 *
 * @param address its own
 * @param state as the kernel numbers it, in hexadecimal
 */
public record TcpSocket(InetAddress address, int port, String state, String inode) {
  private static final String LISTENS = "0A";
  private static final String CONNECTS = "01";
  private static final int ADDRESS = 1;
  private static final int STATE = 3;
  private static final int INODE = 9;

  /** Those of a table, which has a line of titles. */
  public static Stream<TcpSocket> in(String table) {
    return table
        .lines()
        .skip(1)
        .map(line -> line.strip().split("\\s+"))
        .filter(fields -> fields.length > INODE)
        .map(TcpSocket::of);
  }

  private static TcpSocket of(String[] fields) {
    String[] at = fields[ADDRESS].split(":");
    return new TcpSocket(address(at[0]), Integer.parseInt(at[1], 16), fields[STATE], fields[INODE]);
  }

  /** Words of 32 bits, each in the order of bytes of this machine. */
  private static InetAddress address(String hex) {
    ByteBuffer words = ByteBuffer.wrap(HexFormat.of().parseHex(hex));
    ByteBuffer address = ByteBuffer.allocate(words.capacity());
    words.order(ByteOrder.nativeOrder());
    while (words.hasRemaining()) {
      address.putInt(words.getInt());
    }
    try {
      return InetAddress.getByAddress(address.array());
    } catch (UnknownHostException e) {
      throw new IllegalArgumentException(e);
    }
  }

  /** Whether somebody waits for connections at it. */
  public boolean listens() {
    return state.equals(LISTENS);
  }

  boolean connects() {
    return state.equals(CONNECTS);
  }
}
