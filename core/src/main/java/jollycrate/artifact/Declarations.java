package jollycrate.artifact;

import org.objectweb.asm.ClassReader;
import org.objectweb.asm.ClassVisitor;

/** Visits what a class declares, without the code of its methods. */
final class Declarations {
  private Declarations() {}

  /** Whether the class could be understood; if not, the visitor may have seen a part of it. */
  static boolean visit(byte[] classFile, ClassVisitor visitor) {
    try {
      visit(new ClassReader(classFile), visitor);
      return true;
    } catch (IllegalArgumentException | IndexOutOfBoundsException e) {
      return false;
    }
  }

  static void visit(ClassReader reader, ClassVisitor visitor) {
    reader.accept(
        visitor, ClassReader.SKIP_CODE | ClassReader.SKIP_DEBUG | ClassReader.SKIP_FRAMES);
  }
}
