package jollycrate.artifact;

import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/**
 * The head of a class file: version and the constant pool's texts (JVMS 17, section 4.4), without
 * loading the class.
 *
 * @param major class-file major version
 * @param javax refers to {@code javax/servlet/}
 * @param jakarta refers to {@code jakarta/servlet/}
 * @param resource carries or may carry a {@code Resource} annotation
 * @param servlet carries or may carry a {@code WebServlet} annotation
 */
record ClassFile(int major, boolean javax, boolean jakarta, boolean resource, boolean servlet) {
  private static final int MAGIC = 0xCAFEBABE;
  private static final byte[] JAVAX = ascii("javax/servlet/");
  private static final byte[] JAKARTA = ascii("jakarta/servlet/");
  private static final byte[] RESOURCE = ascii("annotation/Resource");
  private static final byte[] SERVLET = ascii("annotation/WebServlet");

  /** The major version alone, 0 when the bytes begin no class file. */
  static int majorOf(byte[] head) {
    ByteBuffer in = ByteBuffer.wrap(head);
    return head.length < 8 || in.getInt() != MAGIC ? 0 : Short.toUnsignedInt(in.getShort(6));
  }

  /** Empty when the bytes are no class file. */
  static Optional<ClassFile> read(byte[] bytes) {
    ByteBuffer in = ByteBuffer.wrap(bytes);
    if (bytes.length < 10 || in.getInt() != MAGIC) {
      return Optional.empty();
    }
    in.getShort();
    int major = Short.toUnsignedInt(in.getShort());
    boolean javax = false;
    boolean jakarta = false;
    boolean resource = false;
    boolean servlet = false;
    int count = Short.toUnsignedInt(in.getShort());
    try {
      for (int index = 1; index < count; index++) {
        int tag = in.get();
        if (tag == 1) {
          int length = Short.toUnsignedInt(in.getShort());
          int start = in.position();
          javax = javax || contains(bytes, start, length, JAVAX);
          jakarta = jakarta || contains(bytes, start, length, JAKARTA);
          resource = resource || contains(bytes, start, length, RESOURCE);
          servlet = servlet || contains(bytes, start, length, SERVLET);
          in.position(start + length);
        } else {
          in.position(in.position() + sizeOf(tag));
          index += tag == 5 || tag == 6 ? 1 : 0;
        }
      }
    } catch (IllegalArgumentException | BufferUnderflowException e) {
      return Optional.empty();
    }
    return Optional.of(new ClassFile(major, javax, jakarta, resource, servlet));
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

  private static boolean contains(byte[] bytes, int start, int length, byte[] wanted) {
    int last = start + length - wanted.length;
    for (int at = start; at <= last; at++) {
      int same = 0;
      while (same < wanted.length && bytes[at + same] == wanted[same]) {
        same++;
      }
      if (same == wanted.length) {
        return true;
      }
    }
    return false;
  }

  private static byte[] ascii(String text) {
    return text.getBytes(StandardCharsets.US_ASCII);
  }
}
