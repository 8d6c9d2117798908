package jollycrate.json;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonUnwrapped;
import com.fasterxml.jackson.annotation.JsonValue;
import java.lang.reflect.Constructor;
import java.lang.reflect.Method;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/**
 * How a record stands in JSON.
 *
 * @param kind the field that says which of several kinds it is, with its value there
 * @param bare whether its only part stands there without a name
 */
record RecordForm(
    List<Part> parts,
    Constructor<?> constructor,
    Optional<Map.Entry<String, String>> kind,
    boolean bare) {
  private static final Map<Class<?>, RecordForm> KNOWN = new ConcurrentHashMap<>();

  /**
   * One of its parts.
   *
   * @param unwrapped whether its own parts stand beside it
   * @param mayLack whether it {@link MayLack}
   */
  record Part(String name, Type type, Method accessor, boolean unwrapped, boolean mayLack) {
    static Part of(RecordComponent component) {
      Method accessor = component.getAccessor();
      accessor.setAccessible(true);
      return new Part(
          component.getName(),
          component.getGenericType(),
          accessor,
          accessor.isAnnotationPresent(JsonUnwrapped.class),
          component.isAnnotationPresent(MayLack.class));
    }
  }

  static RecordForm of(Class<?> type) {
    return KNOWN.computeIfAbsent(type, RecordForm::look);
  }

  private static RecordForm look(Class<?> type) {
    RecordComponent[] parts = type.getRecordComponents();
    Class<?>[] types = Arrays.stream(parts).map(RecordComponent::getType).toArray(Class<?>[]::new);
    try {
      Constructor<?> constructor = type.getDeclaredConstructor(types);
      constructor.setAccessible(true);
      List<Part> all = Arrays.stream(parts).map(Part::of).toList();
      boolean bare = all.size() == 1 && all.get(0).accessor.isAnnotationPresent(JsonValue.class);
      return new RecordForm(all, constructor, kind(type), bare);
    } catch (NoSuchMethodException e) {
      throw new IllegalStateException("every record has it", e);
    }
  }

  private static Optional<Map.Entry<String, String>> kind(Class<?> type) {
    for (Class<?> family : type.getInterfaces()) {
      JsonTypeInfo said = family.getAnnotation(JsonTypeInfo.class);
      if (said != null) {
        return Arrays.stream(family.getAnnotation(JsonSubTypes.class).value())
            .filter(one -> one.value() == type)
            .findFirst()
            .map(one -> Map.entry(said.property(), one.name()));
      }
    }
    return Optional.empty();
  }
}
