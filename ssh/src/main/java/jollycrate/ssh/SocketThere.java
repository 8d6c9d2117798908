package jollycrate.ssh;

import com.jcraft.jsch.ChannelDirectTCPIP;
import com.jcraft.jsch.JSchException;
import com.jcraft.jsch.Session;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketAddress;
import java.net.SocketException;
import java.net.SocketTimeoutException;

/**
 * A socket that another machine connects (RFC 4254, section 7.2). Nothing listens here for it. It
 * knows no options: who reads has limits of his own.
 */
final class SocketThere extends Socket {
  private static final int PROHIBITED = 1;
  private static final int CONNECT_FAILED = 2;

  private final Session session;
  private ChannelDirectTCPIP channel;
  private InputStream in;
  private OutputStream out;
  private InetSocketAddress address;
  private boolean closed;

  SocketThere(Session session) {
    this.session = session;
  }

  @Override
  public void connect(SocketAddress endpoint) throws IOException {
    connect(endpoint, 0);
  }

  @Override
  public void connect(SocketAddress endpoint, int timeout) throws IOException {
    address = (InetSocketAddress) endpoint;
    try {
      channel = (ChannelDirectTCPIP) session.openChannel("direct-tcpip");
      channel.setHost(address.getAddress().getHostAddress());
      channel.setPort(address.getPort());
      in = channel.getInputStream();
      out = channel.getOutputStream();
      channel.connect(timeout);
    } catch (JSchException e) {
      throw story(e);
    }
  }

  /** Why there is no connection, with the reasons of RFC 4254, section 5.1. */
  private IOException story(JSchException e) {
    if (!session.isConnected()) {
      return new SocketException("the connection to the machine was cut");
    }
    if (channel.getExitStatus() == PROHIBITED) {
      return new SocketException("its SSH server lets nothing through (AllowTcpForwarding)");
    }
    return channel.getExitStatus() == CONNECT_FAILED
        ? new ConnectException("Connection refused")
        : new SocketTimeoutException("Connect timed out");
  }

  @Override
  public boolean isConnected() {
    return channel != null;
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
    return opened(in);
  }

  @Override
  public OutputStream getOutputStream() throws IOException {
    return opened(out);
  }

  private static <T> T opened(T stream) throws SocketException {
    if (stream == null) {
      throw new SocketException("Socket is not connected");
    }
    return stream;
  }

  @Override
  public void shutdownOutput() throws IOException {
    opened(out).close();
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
    if (channel != null) {
      channel.disconnect();
    }
  }
}
