package jollycrate.pack;

import java.nio.file.Path;
import java.util.List;

/**
 * What goes into a WAR.
 *
 * @param classes folders whose content goes to {@code WEB-INF/classes}; the first that has a file
 *     wins
 * @param web folder whose content goes to the root
 * @param libs archives that go to {@code WEB-INF/lib}
 * @param leaveOut patterns over paths inside the WAR, as in {@link java.nio.file.FileSystem
 *     #getPathMatcher} with the syntax {@code glob}
 */
public record PackRequest(
    String name,
    String version,
    List<Path> classes,
    List<Path> web,
    List<Path> libs,
    List<String> leaveOut) {}
