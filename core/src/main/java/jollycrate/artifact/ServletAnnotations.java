package jollycrate.artifact;

import java.util.ArrayList;
import java.util.List;
import org.objectweb.asm.AnnotationVisitor;
import org.objectweb.asm.ClassVisitor;
import org.objectweb.asm.Opcodes;

/** URL patterns of the {@code WebServlet} annotation (Jakarta Servlet 6.0, section 8.1.1). */
final class ServletAnnotations extends ClassVisitor {
  private final List<String> patterns = new ArrayList<>();

  private ServletAnnotations() {
    super(Opcodes.ASM9);
  }

  /** Patterns of a class; empty when it has none or cannot be understood. */
  static List<String> patterns(byte[] classFile) {
    ServletAnnotations visitor = new ServletAnnotations();
    return Declarations.visit(classFile, visitor) ? visitor.patterns : List.of();
  }

  @Override
  public AnnotationVisitor visitAnnotation(String descriptor, boolean visible) {
    if (!descriptor.endsWith("/servlet/annotation/WebServlet;")) {
      return null;
    }
    return new AnnotationVisitor(Opcodes.ASM9) {
      @Override
      public AnnotationVisitor visitArray(String name) {
        return name.equals("value") || name.equals("urlPatterns") ? new Patterns() : null;
      }
    };
  }

  private final class Patterns extends AnnotationVisitor {
    Patterns() {
      super(Opcodes.ASM9);
    }

    @Override
    public void visit(String name, Object value) {
      patterns.add(value.toString());
    }
  }
}
