package jollycrate.artifact;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * The head of a class file: version and the constant pool's texts (JVMS 17, section 4.4), without
 * loading the class.
 *
 * @param major class-file major version
 * @param javax refers to {@code javax/servlet/}
 * @param jakarta refers to {@code jakarta/servlet/}
 * @param resource carries or may carry a {@code Resource} annotation
 * @param servlet carries or may carry a {@code WebServlet} annotation
 * @param needed packages it refers to that neither Java nor the servlet API brings
 */
record ClassFile(
    int major,
    boolean javax,
    boolean jakarta,
    boolean resource,
    boolean servlet,
    Set<String> needed) {
  /** Packages of modules that Java 11 no longer has (JEP 320). */
  static final List<String> REMOVED =
      List.of(
          "javax/xml/bind/",
          "javax/xml/ws/",
          "javax/xml/soap/",
          "javax/jws/",
          "javax/activation/",
          "org/omg/CORBA/");

  /** Packages of servers' own classes, of which an application may make use. */
  static final List<String> OF_SERVERS =
      List.of(
          "org/apache/catalina/",
          "org/eclipse/jetty/",
          "io/undertow/",
          "com/ibm/websphere/",
          "com/sun/enterprise/");

  private static final int MAGIC = 0xCAFEBABE;
  private static final Word SERVLETS = new Word("/servlet/");
  private static final Word ANNOTATIONS = new Word("/annotation/");
  private static final Word JAVAX = new Word("javax/servlet/");
  private static final Word JAKARTA = new Word("jakarta/servlet/");
  private static final Word RESOURCE = new Word("annotation/Resource");
  private static final Word SERVLET = new Word("annotation/WebServlet");
  private static final Map<String, Word> NEEDED =
      packages().collect(Collectors.toMap(Function.identity(), Word::new));
  private static final List<Word> TELLING =
      List.of(
          SERVLETS,
          ANNOTATIONS,
          new Word("javax/xml/"),
          new Word("javax/jws/"),
          new Word("javax/activation/"),
          new Word("org/omg/"),
          new Word("/catalina/"),
          new Word("/jetty/"),
          new Word("io/undertow/"),
          new Word("com/ibm/w"),
          new Word("/enterprise/"));

  /** All packages that are looked for. */
  static Stream<String> packages() {
    return Stream.concat(REMOVED.stream(), OF_SERVERS.stream());
  }

  /** The major version alone, 0 when the bytes begin no class file. */
  static int majorOf(byte[] head) {
    ByteBuffer in = ByteBuffer.wrap(head);
    return head.length < 8 || in.getInt() != MAGIC ? 0 : Short.toUnsignedInt(in.getShort(6));
  }

  /**
   * Empty when the bytes are no class file. Most classes mention nothing that is asked for; their
   * constant pool is not looked through.
   */
  static Optional<ClassFile> read(byte[] bytes) {
    int major = majorOf(bytes);
    if (major == 0) {
      return Optional.empty();
    }
    if (TELLING.stream().noneMatch(word -> word.isIn(bytes, 0, bytes.length))) {
      return Optional.of(new ClassFile(major, false, false, false, false, Set.of()));
    }
    try {
      return Optional.of(new Pool(bytes).read(major));
    } catch (IllegalArgumentException | IndexOutOfBoundsException e) {
      return Optional.empty();
    }
  }

  /** Reads the texts of a constant pool. */
  private static final class Pool {
    private final byte[] bytes;
    private int at = 8;
    private boolean javax;
    private boolean jakarta;
    private boolean resource;
    private boolean servlet;
    private final Set<String> needed = new TreeSet<>();

    Pool(byte[] bytes) {
      this.bytes = bytes;
    }

    ClassFile read(int major) {
      int count = unsignedShort();
      for (int index = 1; index < count; index++) {
        int tag = bytes[at++];
        if (tag == 1) {
          int length = unsignedShort();
          text(at, at + length);
          at += length;
        } else {
          at += sizeOf(tag);
          index += tag == 5 || tag == 6 ? 1 : 0;
        }
      }
      return new ClassFile(major, javax, jakarta, resource, servlet, needed);
    }

    private void text(int from, int to) {
      javax = javax || JAVAX.isIn(bytes, from, to);
      jakarta = jakarta || JAKARTA.isIn(bytes, from, to);
      resource = resource || RESOURCE.isIn(bytes, from, to);
      servlet = servlet || SERVLET.isIn(bytes, from, to);
      NEEDED.forEach(
          (name, word) -> {
            if (word.isIn(bytes, from, to)) {
              needed.add(name);
            }
          });
    }

    private int unsignedShort() {
      int value = (bytes[at] & 0xff) << 8 | bytes[at + 1] & 0xff;
      at += 2;
      return value;
    }
  }

  private static int sizeOf(int tag) {
    return switch (tag) {
      case 7, 8, 16, 19, 20 -> 2;
      case 15 -> 3;
      case 3, 4, 9, 10, 11, 12, 17, 18 -> 4;
      case 5, 6 -> 8;
      default -> throw new IllegalArgumentException("constant pool tag " + tag);
    };
  }

  /** A word looked for from its end, skipping what cannot match (Horspool's algorithm). */
  private static final class Word {
    private final byte[] word;
    private final int[] skip = new int[256];

    Word(String text) {
      word = text.getBytes(StandardCharsets.US_ASCII);
      Arrays.fill(skip, word.length);
      for (int i = 0; i < word.length - 1; i++) {
        skip[word[i] & 0xff] = word.length - 1 - i;
      }
    }

    boolean isIn(byte[] bytes, int from, int to) {
      int last = word.length - 1;
      for (int at = from; at + last < to; at += skip[bytes[at + last] & 0xff]) {
        int same = last;
        while (same >= 0 && bytes[at + same] == word[same]) {
          same--;
        }
        if (same < 0) {
          return true;
        }
      }
      return false;
    }
  }
}
