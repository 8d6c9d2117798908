package jollycrate.script;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import jollycrate.app.DataSource;

/**
 * What takes a script back, as it is kept until its delivery ends.
 *
 * @param from folder where the application works
 * @param noted how far it had come before this delivery
 * @param counted whether it was only counted as applied
 * @param by the delivery that it is noted with: what others applied stays
 * @param work empty: nothing undoes it
 */
public record Undo(
    DataSource source,
    Path from,
    String application,
    String script,
    String digest,
    Stage noted,
    boolean counted,
    String by,
    Optional<ScriptWork> work,
    Duration within) {}
