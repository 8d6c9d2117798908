package jollycrate.host;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.List;
import java.util.regex.Pattern;

/**
 * A program that listens on a TCP port.
 *
 * @param address that it binds; that of every interface is the wildcard address
 * @param pid 0 when the operating system does not tell
 * @param program what people know it by; never empty
 */
public record Listening(int port, InetAddress address, long pid, String program) {

  /** Loopback as every machine has it (RFC 6890, section 2.2.2; RFC 4291, section 2.5.3). */
  private static final List<String> LOOPBACK = List.of("127.0.0.1", "0:0:0:0:0:0:0:1");

  private static final Pattern LITERAL = Pattern.compile("[0-9.]+|[0-9A-Fa-f]*:[0-9A-Fa-f:.]*");

  /** What people know it by, with its process where that is told. */
  public String who() {
    return program + (pid > 0 ? " (process " + pid + ")" : "");
  }

  /** Whether nobody but its own machine reaches it. */
  public boolean isOnLoopback() {
    return LOOPBACK.contains(address.getHostAddress());
  }

  /** Whether that is the IP address of one network, and neither loopback nor the wildcard. */
  public static boolean isOfNetwork(String address) {
    return LITERAL.matcher(address).matches()
        && !literal(address).isAnyLocalAddress()
        && !LOOPBACK.contains(literal(address).getHostAddress());
  }

  /** Whether it meets whoever binds that address. */
  static boolean meets(InetAddress bound, String other) {
    return !isOfNetwork(other) || bound.isAnyLocalAddress() || bound.equals(literal(other));
  }

  /** No name service is asked for what is an address already. */
  private static InetAddress literal(String address) {
    try {
      return InetAddress.getByName(address);
    } catch (UnknownHostException e) {
      throw new IllegalArgumentException(e);
    }
  }

  /** The host part of addresses that reach it from its own machine. */
  public String hostName() {
    boolean any = address.isAnyLocalAddress();
    String reached = any ? "127.0.0.1" : address.getHostAddress();
    return reached.contains(":") ? "[" + reached + "]" : reached;
  }
}
