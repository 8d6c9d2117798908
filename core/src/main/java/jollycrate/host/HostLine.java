package jollycrate.host;

import java.net.Socket;

/** A connection to another machine. Closing it ends what holds locks there, and nothing else. */
public interface HostLine extends AutoCloseable {
  /** The machine, as it is seen through this connection. */
  Host host();

  /** Who logged in, and how: {@code user@name:port by publickey}. */
  String told();

  /** The name or address by which it is reached from here. */
  String address();

  /** A socket that connects from the machine itself; addresses mean what they mean there. */
  Socket socket();

  /** How often something was asked and waited for. */
  long turns();

  @Override
  void close();
}
