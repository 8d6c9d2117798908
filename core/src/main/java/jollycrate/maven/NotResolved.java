package jollycrate.maven;

import java.net.ConnectException;
import java.net.UnknownHostException;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.eclipse.aether.repository.RemoteRepository;
import org.eclipse.aether.transfer.ArtifactNotFoundException;
import org.eclipse.aether.transfer.ChecksumFailureException;
import org.eclipse.aether.transfer.MetadataNotFoundException;
import org.eclipse.aether.transfer.RepositoryOfflineException;
import org.eclipse.aether.transfer.TransferCancelledException;

/**
 * Why a file could not be had.
 *
 * @param asked the repositories that were asked
 */
record NotResolved(MavenSettings settings, List<RemoteRepository> asked) {
  private static final String SETTINGS = "~/.m2/settings.xml";

  MavenException failure(String called, Exception failure) {
    String typed =
        notThere(failure) && called.matches("maven:[^:]+:[^:]+:[^:]+")
            ? ". Without a type it is a jar; a WAR is " + called + ":war"
            : "";
    return new MavenException("Cannot find '" + called + "': " + reason(failure) + typed);
  }

  private String reason(Exception failure) {
    if (caused(failure, TransferCancelledException.class)) {
      return "it was interrupted while it was fetched";
    }
    if (settings.offline() || caused(failure, RepositoryOfflineException.class)) {
      return "it is not in "
          + settings.localRepository()
          + ", and Maven's settings say that nothing is fetched (offline). Go online, or install"
          + " it there";
    }
    if (caused(failure, ChecksumFailureException.class)) {
      return "what "
          + places()
          + " gave does not have the checksum that is published there. Publish it again";
    }
    String text = texts(failure);
    if (text.contains("Unauthorized") || text.contains("Forbidden") || text.contains("401")) {
      return places()
          + " asked for credentials, and those of Maven's settings were missing or refused. Name"
          + " them in a <server> of "
          + SETTINGS
          + " whose id is that of the repository";
    }
    if (text.contains("Blocked repositor") || text.contains("mirror")) {
      return "Maven's settings block the repository. Change the mirror in " + SETTINGS;
    }
    if (caused(failure, UnknownHostException.class) || caused(failure, ConnectException.class)) {
      return places() + " cannot be reached: " + last(failure);
    }
    if (notThere(failure)) {
      return "it is neither in "
          + settings.localRepository()
          + " nor in "
          + places()
          + ". Fix its name or version, install it, or name its repository in "
          + SETTINGS;
    }
    return last(failure);
  }

  private static boolean notThere(Exception failure) {
    return caused(failure, ArtifactNotFoundException.class)
        || caused(failure, MetadataNotFoundException.class);
  }

  private String places() {
    return asked.stream()
        .map(repository -> repository.getId() + " (" + withoutUser(repository.getUrl()) + ")")
        .collect(Collectors.joining(", "));
  }

  private static String withoutUser(String url) {
    return url.replaceFirst("//[^/@]*@", "//");
  }

  private static boolean caused(Throwable failure, Class<? extends Throwable> kind) {
    return chain(failure).anyMatch(kind::isInstance);
  }

  private static String texts(Throwable failure) {
    return chain(failure).map(String::valueOf).collect(Collectors.joining("\n"));
  }

  private static String last(Throwable failure) {
    return chain(failure)
        .reduce((earlier, later) -> later)
        .map(cause -> withoutUser(String.valueOf(cause.getMessage())))
        .orElseThrow();
  }

  private static Stream<Throwable> chain(Throwable failure) {
    return Stream.iterate(failure, cause -> cause != null, Throwable::getCause);
  }
}
