package jollycrate.artifact;

import java.util.ArrayList;
import java.util.List;
import org.objectweb.asm.AnnotationVisitor;
import org.objectweb.asm.ClassVisitor;
import org.objectweb.asm.FieldVisitor;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;
import org.objectweb.asm.Type;

/**
 * Data sources asked for by {@code Resource} annotations (Jakarta Annotations 2.1, section 2.3), on
 * classes, fields and setters.
 */
final class ResourceAnnotations extends ClassVisitor {
  private static final String DATA_SOURCE = "Ljavax/sql/DataSource;";

  private final List<String> names = new ArrayList<>();
  private String className = "";

  private ResourceAnnotations() {
    super(Opcodes.ASM9);
  }

  /** Names below {@code java:comp/env/}; empty when the class cannot be understood. */
  static List<String> dataSources(byte[] classFile) {
    ResourceAnnotations visitor = new ResourceAnnotations();
    return Declarations.visit(classFile, visitor) ? visitor.names : List.of();
  }

  @Override
  public void visit(
      int version, int access, String name, String sign, String parent, String[] interfaces) {
    className = name.replace('/', '.');
  }

  @Override
  public AnnotationVisitor visitAnnotation(String descriptor, boolean visible) {
    return collector(descriptor, "", "");
  }

  @Override
  public FieldVisitor visitField(int access, String name, String type, String sign, Object value) {
    return new FieldVisitor(Opcodes.ASM9) {
      @Override
      public AnnotationVisitor visitAnnotation(String descriptor, boolean visible) {
        return collector(descriptor, className + "/" + name, type);
      }
    };
  }

  @Override
  public MethodVisitor visitMethod(
      int access, String name, String type, String sign, String[] exceptions) {
    Type[] arguments = Type.getArgumentTypes(type);
    if (!name.startsWith("set") || name.length() < 4 || arguments.length != 1) {
      return null;
    }
    String property = Character.toLowerCase(name.charAt(3)) + name.substring(4);
    return new MethodVisitor(Opcodes.ASM9) {
      @Override
      public AnnotationVisitor visitAnnotation(String descriptor, boolean visible) {
        return collector(descriptor, className + "/" + property, arguments[0].getDescriptor());
      }
    };
  }

  private AnnotationVisitor collector(String descriptor, String defaultName, String type) {
    if (!descriptor.endsWith("/annotation/Resource;")) {
      return null;
    }
    return new AnnotationVisitor(Opcodes.ASM9) {
      private String name = defaultName;
      private String wantedType = type;
      private boolean elsewhere;

      @Override
      public void visit(String attribute, Object value) {
        switch (attribute) {
          case "name" -> name = value.toString();
          case "type" -> wantedType = ((Type) value).getDescriptor();
          case "lookup" -> {
            String told = value.toString();
            elsewhere = !told.startsWith(Artifact.ENVIRONMENT);
            name = elsewhere ? name : Artifact.Declared.ownName(told);
          }
          default -> {
            return;
          }
        }
      }

      @Override
      public void visitEnd() {
        if (wantedType.equals(DATA_SOURCE) && !name.isEmpty() && !elsewhere) {
          names.add(name);
        }
      }
    };
  }
}
