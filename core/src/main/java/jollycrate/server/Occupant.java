package jollycrate.server;

import java.nio.file.Path;

/**
 * Something that stands at a context path, whoever put it there.
 *
 * @param served whether the server looks at it; a folder that it is told to ignore keeps the place
 *     all the same
 */
public record Occupant(String listener, String contextPath, Path path, boolean served) {}
