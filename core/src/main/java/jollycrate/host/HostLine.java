package jollycrate.host;

/** A connection to another machine. Closing it ends what holds locks there, and nothing else. */
public interface HostLine extends AutoCloseable {
  /** The machine, as it is seen through this connection. */
  Host host();

  /** Who logged in, and how: {@code user@name:port by publickey}. */
  String told();

  /** How often something was asked and waited for. */
  long turns();

  @Override
  void close();
}
