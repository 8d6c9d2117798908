package jollycrate.ssh;

import com.jcraft.jsch.ChannelDirectTCPIP;
import com.jcraft.jsch.JSchException;
import com.jcraft.jsch.Proxy;
import com.jcraft.jsch.Session;
import com.jcraft.jsch.SocketFactory;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.Socket;

/** A way to a machine that is not a connection of one's own to it. */
abstract class Way implements Proxy {
  private InputStream in;
  private OutputStream out;

  /** Uses streams for it. */
  protected final void by(InputStream from, OutputStream to) {
    in = from;
    out = to;
  }

  @Override
  public InputStream getInputStream() {
    return in;
  }

  @Override
  public OutputStream getOutputStream() {
    return out;
  }

  /** There is none. */
  @Override
  public Socket getSocket() {
    return null;
  }

  /** Through a session with another machine, which is closed with it. */
  static Way through(Session jump) {
    return new Way() {
      @Override
      public void connect(SocketFactory factory, String host, int port, int timeout)
          throws JSchException {
        try {
          ChannelDirectTCPIP channel = (ChannelDirectTCPIP) jump.openChannel("direct-tcpip");
          channel.setHost(host);
          channel.setPort(port);
          by(channel.getInputStream(), channel.getOutputStream());
          channel.connect(timeout);
        } catch (IOException e) {
          throw new JSchException(e.getMessage(), e);
        }
      }

      @Override
      public void close() {
        jump.disconnect();
      }
    };
  }

  /** Through a command's input and output. */
  static Way by(String command) {
    return new Way() {
      private Process process;

      @Override
      public void connect(SocketFactory factory, String host, int port, int timeout)
          throws JSchException {
        try {
          process =
              new ProcessBuilder("/bin/sh", "-c", "exec " + command)
                  .redirectError(ProcessBuilder.Redirect.DISCARD)
                  .start();
          by(process.getInputStream(), process.getOutputStream());
        } catch (IOException e) {
          throw new JSchException(e.getMessage(), e);
        }
      }

      @Override
      public void close() {
        if (process != null) {
          process.destroy();
        }
      }
    };
  }
}
