package jollycrate.journal;

import java.time.Instant;
import jollycrate.json.MayLack;

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
    @MayLack String revision,
    @MayLack int restores,
    String address,
    String outcome,
    String reason,
    String by,
    long millis) {}
