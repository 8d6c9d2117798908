package jollycrate.keeper;

import java.io.ByteArrayInputStream;
import java.io.File;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.Paths;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.TreeMap;

/**
 * What is to run: a file {@code programs/NAME.program} in the format of {@link Properties}, in
 * UTF-8.
 *
 * <p>{@code command} is program and arguments, one a line, {@code folder} where it works, {@code
 * env.NAME} and {@code secret.env.NAME} its variables, {@code log} the base name of its log, {@code
 * log.size} and {@code log.keep} the limits of that, {@code copy.from} a file that is copied to
 * {@code copy.to} while it runs, {@code restart} is {@code on-crash} or {@code never}, {@code
 * stop.within} the patience of a stop in seconds.
 */
final class RunFile {
  static final String ENDING = ".program";

  final String name;
  final String digest;
  final long logSize;
  final int logKeep;
  final int stopWithin;
  private final Properties values = new Properties();

  private RunFile(String name, byte[] bytes) throws IOException {
    this.name = name;
    this.digest = digest(bytes);
    try {
      values.load(new InputStreamReader(new ByteArrayInputStream(bytes), StandardCharsets.UTF_8));
      logSize = Long.parseLong(values.getProperty("log.size", "10000000"));
      logKeep = Integer.parseInt(values.getProperty("log.keep", "5"));
      stopWithin = Integer.parseInt(values.getProperty("stop.within", "20"));
    } catch (IllegalArgumentException e) {
      throw new IOException(e.getMessage());
    }
  }

  static RunFile read(Path file) throws IOException {
    String name = file.getFileName().toString();
    return new RunFile(
        name.substring(0, name.length() - ENDING.length()), Files.readAllBytes(file));
  }

  private static String digest(byte[] bytes) {
    try {
      StringBuilder hex = new StringBuilder();
      for (byte b : MessageDigest.getInstance("SHA-256").digest(bytes)) {
        hex.append(String.format("%02x", b));
      }
      return hex.toString();
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }

  /** Program and arguments; a line break within one of them is written as a backslash and n. */
  List<String> command() {
    List<String> command = new ArrayList<>();
    String told = values.getProperty("command", "");
    for (String argument : told.isEmpty() ? new String[0] : told.split("\n", -1)) {
      command.add(unescaped(argument));
    }
    return command;
  }

  private static String unescaped(String argument) {
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < argument.length(); i++) {
      char c = argument.charAt(i);
      if (c == '\\' && i + 1 < argument.length()) {
        i++;
        text.append(argument.charAt(i) == 'n' ? '\n' : argument.charAt(i));
      } else {
        text.append(c);
      }
    }
    return text.toString();
  }

  File folder() {
    return new File(values.getProperty("folder", "."));
  }

  Map<String, String> variables() {
    Map<String, String> variables = new TreeMap<>();
    for (String key : values.stringPropertyNames()) {
      for (String prefix : new String[] {"env.", "secret.env."}) {
        if (key.startsWith(prefix)) {
          variables.put(key.substring(prefix.length()), values.getProperty(key));
        }
      }
    }
    return variables;
  }

  /** A file that stands at {@link #copyTo} while the program runs; null for none. */
  Path copyFrom() {
    String from = values.getProperty("copy.from");
    return from == null ? null : Paths.get(from);
  }

  Path copyTo() {
    return Paths.get(values.getProperty("copy.to"));
  }

  String log() {
    return values.getProperty("log", name);
  }

  boolean restarts() {
    return values.getProperty("restart", "never").equals("on-crash");
  }
}
