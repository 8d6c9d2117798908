package jollycrate.site;

import java.nio.file.Path;
import java.util.Optional;

/**
 * What is wanted of a new server.
 *
 * @param host machine on which it is to be, as it is described; empty: this one
 * @param folder empty: {@code servers/NAME} beside {@code servers.toml}
 * @param installation unpacked server that it runs; empty: the one that comes along
 * @param javax whether that is the one for javax.servlet
 * @param http empty: the first free port from 8080 on
 * @param admin empty: the next free port behind it
 * @param address empty: loopback here, and every address of another machine
 * @param kind its kind, of those that need no installation; empty: what its installation tells
 */
public record NewServer(
    String name,
    Optional<String> host,
    Optional<Path> folder,
    Optional<Path> installation,
    boolean javax,
    Optional<Integer> http,
    Optional<Integer> admin,
    Optional<String> address,
    String memory,
    Optional<Path> java,
    Optional<String> kind) {}
