package jollycrate.host;

import java.net.InetAddress;

/**
 * A program that listens on a TCP port.
 *
 * @param address that it binds; that of every interface is the wildcard address
 * @param pid 0 when the operating system does not tell
 * @param program what people know it by; never empty
 */
public record Listening(int port, InetAddress address, long pid, String program) {

  /** The host part of addresses that reach it from its own machine. */
  public String hostName() {
    boolean any = address.isAnyLocalAddress();
    String reached = any ? "127.0.0.1" : address.getHostAddress();
    return reached.contains(":") ? "[" + reached + "]" : reached;
  }
}
