package jollycrate.host;

import java.util.List;

/** A process and the arguments it was started with, the program itself first. */
public record Program(Identity identity, List<String> arguments) {}
