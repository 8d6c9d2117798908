package jollycrate.host;

/**
 * A program that listens on a TCP port.
 *
 * @param pid 0 when the operating system does not tell
 * @param program what people know it by; never empty
 */
public record Listening(int port, long pid, String program) {}
