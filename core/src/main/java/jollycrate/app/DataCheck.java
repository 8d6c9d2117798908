package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.Optional;

/**
 * What a data source is asked for, by its driver, on the server's own machine.
 *
 * @param source JNDI name of the data source
 * @param query in one line, that only reads
 * @param value expected first value of the first row: itself, or a table of {@code least} and
 *     {@code most}; empty: any row will do
 */
public record DataCheck(String name, String source, String query, Optional<JsonNode> value) {}
