package jollycrate.draft;

import java.util.HashSet;
import java.util.Set;
import org.objectweb.asm.ClassReader;
import org.objectweb.asm.ClassVisitor;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;

/** Names of the methods that a class declares itself. */
final class HandledMethods {
  private HandledMethods() {}

  /** Empty for what is no class file. */
  static Set<String> of(byte[] classFile) {
    Set<String> names = new HashSet<>();
    ClassVisitor gather =
        new ClassVisitor(Opcodes.ASM9) {
          @Override
          public MethodVisitor visitMethod(
              int access, String name, String descriptor, String signature, String[] exceptions) {
            names.add(name);
            return super.visitMethod(access, name, descriptor, signature, exceptions);
          }
        };
    try {
      new ClassReader(classFile)
          .accept(gather, ClassReader.SKIP_CODE | ClassReader.SKIP_DEBUG | ClassReader.SKIP_FRAMES);
    } catch (RuntimeException noClass) {
      return Set.of();
    }
    return names;
  }
}
