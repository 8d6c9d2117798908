package jollycrate.ssh;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import jollycrate.host.LineCutException;

/** A shell on another machine that answers one request after the other; a request is one turn. */
final class Shell {
  private static final SecureRandom RANDOM = new SecureRandom();
  private static final int MARK_BYTES = 16;
  private static final int BUFFER = 1 << 16;
  private static final int LINE_FEED = '\n';

  /** Bytes of scripts that wait there at most: what lies between here and there is bounded. */
  private static final int MOST_AHEAD = 1 << 15;

  /**
   * What a script printed.
   *
   * @param errors what it said of errors, in English
   */
  record Reply(int exit, byte[] output, String errors) {
    String text() {
      return new String(output, StandardCharsets.UTF_8);
    }
  }

  private final OutputStream in;
  private final InputStream out;
  private final byte[] buffer = new byte[BUFFER];
  private int from;
  private int to;
  private final long pid;
  private final String born;
  private long turns;

  /** Whether an answer did not come to its end, so that the next would be taken for it. */
  private boolean cut;

  /** On the streams of a program that answers as {@code answer.sh} does. */
  Shell(OutputStream in, InputStream out) throws IOException {
    this.in = in;
    this.out = out;
    String[] told = line().split(" ");
    this.pid = Long.parseLong(told[0]);
    this.born = told.length > 1 ? told[1] : "";
    this.turns = 1;
  }

  /** A mark that nobody else can know. */
  static String mark() {
    byte[] bytes = new byte[MARK_BYTES];
    RANDOM.nextBytes(bytes);
    return HexFormat.of().formatHex(bytes);
  }

  /** Its process id there. */
  long pid() {
    return pid;
  }

  /** When it was started, in ticks since the machine was; empty when that is not known. */
  String born() {
    return born;
  }

  /** Whether an answer did not come to its end. */
  synchronized boolean isCut() {
    return cut;
  }

  /** How many requests it answered. */
  synchronized long turns() {
    return turns;
  }

  /**
   * A script that is to be run.
   *
   * @param size number of bytes of its input
   * @param onlyAfter whether it is passed over when the one before it failed
   */
  record Request(String script, InputStream input, long size, boolean onlyAfter) {
    /** Without input, whatever came before. */
    static Request of(String script) {
      return new Request(script, InputStream.nullInputStream(), 0, false);
    }
  }

  /** Runs a script without input. */
  Reply ask(String script) {
    return ask(List.of(Request.of(script))).get(0);
  }

  /**
   * Runs scripts one after the other. They are sent before the first is answered, as far as there
   * is room for them on the way.
   */
  synchronized List<Reply> ask(List<Request> requests) {
    if (cut) {
      throw new LineCutException("before");
    }
    List<Reply> replies = new ArrayList<>();
    cut = true;
    try {
      while (replies.size() < requests.size()) {
        turns++;
        replies.addAll(turn(requests.subList(replies.size(), requests.size())));
      }
    } catch (IOException e) {
      throw new LineCutException(e.getMessage());
    }
    cut = false;
    return replies;
  }

  private List<Reply> turn(List<Request> requests) throws IOException {
    List<String> marks = new ArrayList<>();
    int room = MOST_AHEAD;
    for (int i = 0; i < requests.size() && room > 0; i++) {
      marks.add(send(requests.get(i)));
      room -= requests.get(i).script().length();
    }
    in.flush();
    List<Reply> replies = new ArrayList<>();
    for (String mark : marks) {
      replies.add(reply(mark));
    }
    return replies;
  }

  private String send(Request request) throws IOException {
    String mark = mark();
    byte[] text = request.script().getBytes(StandardCharsets.UTF_8);
    String after = request.onlyAfter() ? " after" : "";
    String head = text.length + " " + request.size() + " " + mark + after + "\n";
    in.write(head.getBytes(StandardCharsets.UTF_8));
    in.write(text);
    send(request.input(), request.size());
    return mark;
  }

  /** What is missing is made up for: the shell there must not take the next request for it. */
  private void send(InputStream input, long size) throws IOException {
    byte[] part = new byte[BUFFER];
    long left = size;
    while (left > 0) {
      int read = read(input, part, (int) Math.min(part.length, left));
      int count = read < 0 ? (int) Math.min(part.length, left) : read;
      in.write(part, 0, count);
      left -= count;
    }
  }

  /** What cannot be read here is missing, and no matter of the line: the digest there tells. */
  private static int read(InputStream input, byte[] part, int most) {
    try {
      return input.read(part, 0, most);
    } catch (IOException missing) {
      return -1;
    }
  }

  private Reply reply(String mark) throws IOException {
    byte[] end = ("\n" + mark + " ").getBytes(StandardCharsets.UTF_8);
    ByteArrayOutputStream output = new ByteArrayOutputStream();
    int matched = 0;
    while (matched < end.length) {
      int next = next();
      if (next < 0) {
        throw new IOException("it ended");
      }
      if (next == end[matched]) {
        matched++;
      } else {
        output.write(end, 0, matched);
        matched = next == end[0] ? 1 : 0;
        if (matched == 0) {
          output.write(next);
        }
      }
    }
    String[] told = line().split(" ");
    byte[] errors = new byte[Integer.parseInt(told[1])];
    for (int i = 0; i < errors.length; i++) {
      errors[i] = (byte) next();
    }
    return new Reply(
        Integer.parseInt(told[0]),
        output.toByteArray(),
        new String(errors, StandardCharsets.UTF_8).strip());
  }

  private String line() throws IOException {
    ByteArrayOutputStream line = new ByteArrayOutputStream();
    for (int next = next(); next != LINE_FEED; next = next()) {
      if (next < 0) {
        throw new IOException("it ended");
      }
      line.write(next);
    }
    return line.toString(StandardCharsets.UTF_8);
  }

  private int next() throws IOException {
    if (from == to) {
      to = out.read(buffer);
      from = 0;
      if (to < 0) {
        to = 0;
        return -1;
      }
    }
    return buffer[from++] & 0xff;
  }
}
