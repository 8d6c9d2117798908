package jollycrate.server;

import jollycrate.host.Identity;

/** The process of a server. */
public record Running(Identity identity, String fingerprint) {}
