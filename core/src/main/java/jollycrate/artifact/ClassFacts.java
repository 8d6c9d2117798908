package jollycrate.artifact;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.objectweb.asm.ClassReader;
import org.objectweb.asm.ClassVisitor;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;

/**
 * What a compiled class tells: its name, its parent, whether {@code java} can start it, and what
 * other classes it names.
 *
 * @param name with dots
 * @param parent with dots; empty for {@link Object}
 * @param startable has a main method of its own
 * @param references every class it names, with dots
 */
public record ClassFacts(String name, String parent, boolean startable, Set<String> references) {
  private static final String MAIN = "main";
  private static final String ARGUMENTS = "([Ljava/lang/String;)V";
  private static final String NO_ARGUMENTS = "()V";
  private static final int INSTANCE_MAIN = Opcodes.V25;
  private static final int CLASS_TAG = 7;
  private static final int UTF_8_TAG = 1;
  private static final Pattern IN_DESCRIPTOR = Pattern.compile("L([^;<>()\\[:.]+)[;<]");

  /** Empty when the bytes are no class file that is understood. */
  public static Optional<ClassFacts> of(byte[] classFile) {
    try {
      ClassReader reader = new ClassReader(classFile);
      MainMethod main = new MainMethod();
      reader.accept(main, ClassReader.SKIP_CODE | ClassReader.SKIP_DEBUG | ClassReader.SKIP_FRAMES);
      String parent = reader.getSuperName();
      return Optional.of(
          new ClassFacts(
              dotted(reader.getClassName()),
              parent == null || parent.equals("java/lang/Object") ? "" : dotted(parent),
              main.found,
              references(reader)));
    } catch (IllegalArgumentException | IndexOutOfBoundsException e) {
      return Optional.empty();
    }
  }

  private static String dotted(String internal) {
    return internal.replace('/', '.');
  }

  /** From the constant pool (JVMS 17, section 4.4): class entries, and types inside descriptors. */
  private static Set<String> references(ClassReader reader) {
    Set<String> names = new TreeSet<>();
    char[] buffer = new char[reader.getMaxStringLength()];
    List<String> texts = new ArrayList<>();
    for (int index = 1; index < reader.getItemCount(); index++) {
      int at = reader.getItem(index);
      int tag = at == 0 ? 0 : reader.readByte(at - 1);
      if (tag == CLASS_TAG) {
        String name = reader.readUTF8(at, buffer);
        if (name.startsWith("[")) {
          texts.add(name);
        } else {
          names.add(dotted(name));
        }
      } else if (tag == UTF_8_TAG) {
        texts.add(text(reader, at));
      }
    }
    for (String text : texts) {
      Matcher matcher = IN_DESCRIPTOR.matcher(text);
      while (matcher.find()) {
        names.add(dotted(matcher.group(1)));
      }
    }
    return names;
  }

  private static String text(ClassReader reader, int at) {
    int length = reader.readUnsignedShort(at);
    StringBuilder text = new StringBuilder(length);
    for (int i = 0; i < length; i++) {
      text.append((char) (reader.readByte(at + 2 + i) & 0xff));
    }
    return text.toString();
  }

  /** A main method as the launcher looks for it (JLS 17, 12.1.4; JEP 512 from Java 25 on). */
  private static final class MainMethod extends ClassVisitor {
    private boolean found;
    private boolean instance;

    MainMethod() {
      super(Opcodes.ASM9);
    }

    @Override
    public void visit(
        int version, int access, String name, String sign, String parent, String[] interfaces) {
      instance = (version & 0xFFFF) >= INSTANCE_MAIN && (access & Opcodes.ACC_ABSTRACT) == 0;
    }

    @Override
    public MethodVisitor visitMethod(
        int access, String name, String type, String sign, String[] exceptions) {
      boolean isStatic = (access & Opcodes.ACC_STATIC) != 0;
      boolean classic = type.equals(ARGUMENTS) && isStatic && (access & Opcodes.ACC_PUBLIC) != 0;
      boolean lately =
          instance
              && (type.equals(ARGUMENTS) || type.equals(NO_ARGUMENTS))
              && (access & Opcodes.ACC_PRIVATE) == 0;
      found |= name.equals(MAIN) && (classic || lately);
      return null;
    }
  }
}
