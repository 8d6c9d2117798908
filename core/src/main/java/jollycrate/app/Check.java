package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;

/**
 * One request and what is expected of its answer.
 *
 * @param method of HTTP, in capitals
 * @param path below the context path, with query
 * @param body sent as {@code application/json}
 * @param status expected status; empty: any from 200 to 299
 * @param text must stand in the answer
 * @param json expected values by JSON Pointer (RFC 6901)
 * @param within longest time from sending the request to the last byte
 * @param user who logs in
 * @param fromHost whether it is asked on the server's own machine, and not from here
 */
public record Check(
    String name,
    String method,
    String path,
    Optional<JsonNode> body,
    Optional<Integer> status,
    Optional<String> text,
    Map<String, JsonNode> json,
    Optional<Duration> within,
    Optional<String> user,
    boolean fromHost) {}
