package jollycrate.artifact;

import java.net.URI;
import java.net.URISyntaxException;
import java.net.URL;
import java.nio.file.Path;

/** Where something stands on our own class path. */
public final class ClassPathPlace {
  private ClassPathPlace() {}

  /**
   * The archive or folder that holds a resource.
   *
   * @throws IllegalStateException when nothing on the class path does
   */
  public static Path of(String resource) {
    URL found = ClassPathPlace.class.getClassLoader().getResource(resource);
    if (found == null) {
      throw new IllegalStateException("the class path lacks " + resource);
    }
    String text = found.toString();
    String place =
        text.startsWith("jar:")
            ? text.substring("jar:".length(), text.indexOf("!/"))
            : text.substring(0, text.length() - resource.length());
    try {
      return Path.of(new URI(place));
    } catch (URISyntaxException e) {
      throw new IllegalStateException(e);
    }
  }
}
