package jollycrate.server;

import java.nio.file.Path;

/** Something that stands at a context path, whoever put it there. */
public record Occupant(String listener, String contextPath, Path path) {}
