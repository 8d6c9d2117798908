package jollycrate.journal;

import com.fasterxml.jackson.annotation.JacksonInject;
import com.fasterxml.jackson.annotation.OptBoolean;
import java.time.Instant;
import jollycrate.json.Json;

/**
 * One line of {@code .jolly/deliveries.jsonl}.
 *
 * @param act deploy, undeploy or rollback
 * @param digest SHA-256 of the artifact, empty for an undeploy
 * @param description SHA-256 of the resolved description without secrets
 * @param revision of the source it was made of, as far as it is known
 * @param restores number of the delivery whose release came back with it; 0 for a new one
 * @param outcome delivered, removed or taken back
 * @param reason why it was taken back, else empty
 * @param millis how long it took
 */
public record DeliveryRecord(
    int delivery,
    Instant at,
    String act,
    String application,
    String version,
    String digest,
    String description,
    @JacksonInject(value = Json.ABSENT, useInput = OptBoolean.TRUE) String revision,
    @JacksonInject(value = Json.ABSENT_NUMBER, useInput = OptBoolean.TRUE) int restores,
    String address,
    String outcome,
    String reason,
    String by,
    long millis) {}
