package jollycrate.server;

import java.util.List;

/**
 * Somebody whom a server itself knows, whatever application asks.
 *
 * @param stored how the password is stored, as people say it
 * @param where file and line
 */
public record ServerUser(String name, List<String> roles, String stored, String where) {}
