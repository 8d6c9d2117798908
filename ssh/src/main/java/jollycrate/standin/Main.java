package jollycrate.standin;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Arrays;
import java.util.Optional;
import java.util.SortedSet;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;
import jollycrate.host.StandIn;
import jollycrate.host.TcpSocket;
import jollycrate.json.Json;

/** Is a stand-in until it is ended; its folder is its one argument. */
public final class Main {
  private static final long LOOK_AGAIN_NANOS = 100_000_000;

  private Main() {}

  /** Runs it. */
  public static void main(String[] args) throws IOException {
    Path folder = Path.of(args[0]);
    StandIn standIn =
        read(Files.readAllBytes(StandIn.in(folder)))
            .orElseThrow(() -> new IOException("'" + StandIn.in(folder) + "' cannot be read"));
    try (LogIns logIns = LogIns.start(folder, standIn);
        Doors doors = new Doors(standIn)) {
      SortedSet<Integer> open = standIn.open();
      byte[] inForce = new byte[0];
      while (logIns.isOpen()) {
        byte[] told = Files.readAllBytes(StandIn.in(folder));
        Optional<StandIn> described = read(told);
        open = described.map(StandIn::open).orElse(open);
        doors.set(open, listening(standIn));
        if (described.isPresent() && !Arrays.equals(told, inForce) && doors.follow(open)) {
          Path beside = folder.resolve(".in-force.json.part");
          Files.write(beside, told);
          Files.move(beside, StandIn.inForce(folder), StandardCopyOption.ATOMIC_MOVE);
          inForce = told;
        }
        LockSupport.parkNanos(LOOK_AGAIN_NANOS);
      }
    }
  }

  /** What it is to go by; empty when that cannot be read, and then what it went by stays. */
  private static Optional<StandIn> read(byte[] told) {
    return Json.read(told, StandIn.class);
  }

  /** Ports that somebody listens on inside. */
  private static int[] listening(StandIn standIn) {
    return Stream.of("/proc/net/tcp", "/proc/net/tcp6")
        .map(Path::of)
        .filter(Files::isReadable)
        .flatMap(Main::sockets)
        .filter(TcpSocket::listens)
        .filter(socket -> socket.address().getHostAddress().equals(standIn.inside()))
        .mapToInt(TcpSocket::port)
        .toArray();
  }

  private static Stream<TcpSocket> sockets(Path table) {
    try {
      return TcpSocket.in(Files.readString(table));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
