package jollycrate.ssh;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.InterruptedIOException;
import java.io.OutputStream;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.NoRouteToHostException;
import java.net.Socket;
import java.net.SocketAddress;
import java.net.SocketException;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.regex.Pattern;
import jollycrate.host.Words;

/**
 * A socket that another machine connects (RFC 4254, section 7.2). Nothing listens here for it. It
 * knows no options: who reads has limits of his own.
 */
final class SocketThere extends Socket {
  /** What a client says once the SSH server there has connected, with and without sharing. */
  private static final Pattern CONNECTED =
      Pattern.compile(".*(?:master session id:|: open confirm).*");

  private static final int WITHOUT_LIMIT_MILLIS = 60_000;

  private final Connection connection;
  private final StringBuffer said = new StringBuffer();
  private Process process;
  private InetSocketAddress address;
  private boolean closed;

  SocketThere(Connection connection) {
    this.connection = connection;
  }

  @Override
  public void connect(SocketAddress endpoint) throws IOException {
    connect(endpoint, 0);
  }

  @Override
  public void connect(SocketAddress endpoint, int timeout) throws IOException {
    address = (InetSocketAddress) endpoint;
    String host = address.getAddress().getHostAddress();
    String target = (host.contains(":") ? "[" + host + "]" : host) + ":" + address.getPort();
    long since = connection.logEnd();
    Process client = connection.stream(target);
    CompletableFuture<Boolean> opened = new CompletableFuture<>();
    Words.inBackground(() -> listen(client, opened));
    int limit = timeout > 0 ? timeout : WITHOUT_LIMIT_MILLIS;
    if (!isOpened(client, opened, limit)) {
      throw why(connection.whyNotOpened(target, said.toString(), since));
    }
    process = client;
  }

  private void listen(Process client, CompletableFuture<Boolean> opened) {
    try (BufferedReader lines =
        new BufferedReader(
            new InputStreamReader(client.getErrorStream(), StandardCharsets.UTF_8))) {
      for (String line = lines.readLine(); line != null; line = lines.readLine()) {
        if (CONNECTED.matcher(line).matches()) {
          opened.complete(true);
        } else if (!opened.isDone()) {
          said.append(line).append('\n');
        }
      }
    } catch (IOException ended) {
      said.append(ended.getMessage());
    } finally {
      opened.complete(false);
    }
  }

  private static boolean isOpened(Process client, CompletableFuture<Boolean> opened, int limit)
      throws IOException {
    try {
      return opened.get(limit, TimeUnit.MILLISECONDS);
    } catch (TimeoutException e) {
      client.destroy();
      throw new SocketTimeoutException("Connect timed out");
    } catch (InterruptedException e) {
      client.destroy();
      Thread.currentThread().interrupt();
      throw new InterruptedIOException("interrupted");
    } catch (ExecutionException e) {
      throw new IOException(e.getCause());
    }
  }

  /** With the reasons of RFC 4254, section 5.1. */
  private static IOException why(String reason) {
    if (reason.contains("administratively prohibited")) {
      return new SocketException("its SSH server lets nothing through (AllowTcpForwarding)");
    }
    if (reason.contains("refused")) {
      return new ConnectException("Connection refused");
    }
    if (reason.contains("timed out")) {
      return new SocketTimeoutException("Connect timed out");
    }
    return reason.contains("unreachable") || reason.contains("No route")
        ? new NoRouteToHostException(reason)
        : new SocketException(reason.isEmpty() ? "the connection to the machine was cut" : reason);
  }

  @Override
  public boolean isConnected() {
    return process != null;
  }

  @Override
  public boolean isClosed() {
    return closed;
  }

  @Override
  public SocketAddress getRemoteSocketAddress() {
    return address;
  }

  @Override
  public InputStream getInputStream() throws IOException {
    return opened().getInputStream();
  }

  @Override
  public OutputStream getOutputStream() throws IOException {
    return opened().getOutputStream();
  }

  private Process opened() throws SocketException {
    if (process == null) {
      throw new SocketException("Socket is not connected");
    }
    return process;
  }

  @Override
  public void shutdownOutput() throws IOException {
    opened().getOutputStream().close();
  }

  @Override
  public void shutdownInput() {}

  @Override
  public void setSoTimeout(int timeout) {}

  @Override
  public int getSoTimeout() {
    return 0;
  }

  @Override
  public void setTcpNoDelay(boolean on) {}

  @Override
  public void setKeepAlive(boolean on) {}

  @Override
  public void setReuseAddress(boolean on) {}

  @Override
  public void setSoLinger(boolean on, int linger) {}

  @Override
  public void setSendBufferSize(int size) {}

  @Override
  public void setReceiveBufferSize(int size) {}

  @Override
  public void setTrafficClass(int tc) {}

  @Override
  public synchronized void close() {
    closed = true;
    if (process != null) {
      process.destroy();
    }
  }
}
