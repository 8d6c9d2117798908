package jollycrate.site;

import java.nio.file.Path;
import java.util.Optional;

/**
 * What is wanted of a new server.
 *
 * @param folder empty: {@code servers/NAME} beside {@code servers.toml}
 * @param installation unpacked server that it runs; empty: the one that comes along
 * @param javax whether that is the one for javax.servlet
 * @param http empty: the first free port from 8080 on
 * @param admin empty: the next free port behind it
 * @param service whether it is a service, not a practice server
 */
public record NewServer(
    String name,
    Optional<Path> folder,
    Optional<Path> installation,
    boolean javax,
    Optional<Integer> http,
    Optional<Integer> admin,
    String address,
    String memory,
    Optional<Path> java,
    boolean service) {}
