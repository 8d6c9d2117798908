package jollycrate.watch;

import java.util.List;

/**
 * One entry of a log.
 *
 * @param source short name of the log it stands in; empty when there is only one
 * @param lines the line that begins it, and those that belong to it, as a stack trace does
 */
public record LogEntry(LogLevel level, String source, List<String> lines) {}
