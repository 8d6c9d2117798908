package jollycrate.standin;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.util.ArrayList;
import java.util.List;
import jollycrate.host.StandIn;
import jollycrate.host.Words;

/** A port of a stand-in as it is from outside. */
final class Door implements AutoCloseable {
  private static final int LEAST_QUEUE = 1;
  private static final int USUAL_QUEUE = 50;
  private static final int MOST_FILLING = 16;
  private static final int FULL_AFTER_MILLIS = 100;
  private static final int CONNECTS_WITHIN_MILLIS = 5_000;

  private final ServerSocket socket;
  private final boolean open;
  private final List<Socket> filling = new ArrayList<>();
  private Thread leading = new Thread(() -> {});

  private Door(ServerSocket socket, boolean open) {
    this.socket = socket;
    this.open = open;
  }

  /** One that leads inside. */
  static Door open(StandIn standIn, int port) throws IOException {
    Door door = new Door(bound(standIn, port, USUAL_QUEUE), true);
    InetSocketAddress inside = new InetSocketAddress(standIn.inside(), port);
    door.leading = new Thread(() -> door.lead(inside));
    door.leading.setDaemon(true);
    door.leading.start();
    return door;
  }

  /**
   * One that gives no sign. The kernel drops what asks for a connection when nobody takes those
   * that wait and there is no room for another (listen(2)).
   */
  static Door closed(StandIn standIn, int port) throws IOException {
    Door door = new Door(bound(standIn, port, LEAST_QUEUE), false);
    InetSocketAddress itself = new InetSocketAddress(standIn.address(), port);
    for (int i = 0; i < MOST_FILLING; i++) {
      Socket waiting = new Socket();
      door.filling.add(waiting);
      try {
        waiting.connect(itself, FULL_AFTER_MILLIS);
      } catch (SocketTimeoutException full) {
        return door;
      }
    }
    door.close();
    throw new IOException("port " + port + " does not fill up");
  }

  private static ServerSocket bound(StandIn standIn, int port, int queue) throws IOException {
    ServerSocket socket = new ServerSocket();
    socket.setReuseAddress(true);
    try {
      socket.bind(new InetSocketAddress(standIn.address(), port), queue);
    } catch (IOException e) {
      socket.close();
      throw e;
    }
    return socket;
  }

  boolean isOpen() {
    return open;
  }

  private void lead(InetSocketAddress inside) {
    while (!socket.isClosed()) {
      try {
        Socket from = socket.accept();
        Words.inBackground(() -> join(from, inside));
      } catch (IOException closedOrGone) {
        continue;
      }
    }
  }

  private static void join(Socket from, InetSocketAddress inside) {
    try (from;
        Socket to = new Socket()) {
      to.connect(inside, CONNECTS_WITHIN_MILLIS);
      Thread back = new Thread(() -> pass(to, from));
      back.setDaemon(true);
      back.start();
      pass(from, to);
      back.join();
    } catch (IOException nobodyThere) {
      return;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  /** Passes on what comes, and its end. */
  private static void pass(Socket from, Socket to) {
    try {
      from.getInputStream().transferTo(to.getOutputStream());
      to.shutdownOutput();
    } catch (IOException brokenOff) {
      try {
        to.close();
      } catch (IOException closedBefore) {
        return;
      }
    }
  }

  /** The kernel has the port as long as somebody waits at it. */
  @Override
  public void close() throws IOException {
    for (Socket waiting : filling) {
      waiting.close();
    }
    socket.close();
    try {
      leading.join();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }
}
