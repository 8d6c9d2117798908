package jollycrate.json;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.Type;
import java.net.URI;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * Reads records from trees of JSON, strictly: each part must be there and of its type, unless it
 * {@link MayLack}; what a tree holds besides is passed over.
 */
final class RecordReader {
  private RecordReader() {}

  /**
   * A value of a type.
   *
   * @throws IOException when the tree is of another form
   */
  static Object read(JsonNode node, Type type) throws IOException {
    try {
      return type instanceof ParameterizedType several
          ? several(node, (Class<?>) several.getRawType(), several.getActualTypeArguments())
          : single(node, (Class<?>) type);
    } catch (IllegalArgumentException | DateTimeException e) {
      throw new IOException(e);
    }
  }

  private static Object several(JsonNode node, Class<?> type, Type[] of) throws IOException {
    if (type == Optional.class) {
      return node.isNull() ? Optional.empty() : Optional.of(read(node, of[0]));
    }
    if (node.isNull()) {
      return null;
    }
    if (Map.class.isAssignableFrom(type)) {
      must(node.isObject(), node, type);
      Map<Object, Object> map = type == SortedMap.class ? new TreeMap<>() : new LinkedHashMap<>();
      for (Map.Entry<String, JsonNode> field : node.properties()) {
        map.put(ofText(field.getKey(), (Class<?>) of[0]), read(field.getValue(), of[1]));
      }
      return map;
    }
    must(node.isArray(), node, type);
    List<Object> values = new ArrayList<>();
    for (JsonNode element : node) {
      values.add(read(element, of[0]));
    }
    if (type == SortedSet.class) {
      must(!values.contains(null), node, type);
      return new TreeSet<>(values);
    }
    return type == Set.class
        ? Collections.unmodifiableSet(new LinkedHashSet<>(values))
        : Collections.unmodifiableList(values);
  }

  private static Object single(JsonNode node, Class<?> type) throws IOException {
    if (JsonNode.class.isAssignableFrom(type)) {
      must(type.isInstance(node), node, type);
      return node;
    }
    if (node.isNull()) {
      must(!type.isPrimitive(), node, type);
      return null;
    }
    if (type == int.class || type == Integer.class) {
      must(node.isIntegralNumber() && node.canConvertToInt(), node, type);
      return node.intValue();
    }
    if (type == long.class || type == Long.class) {
      must(node.isIntegralNumber() && node.canConvertToLong(), node, type);
      return node.longValue();
    }
    if (type == double.class || type == Double.class) {
      must(node.isNumber(), node, type);
      return node.doubleValue();
    }
    if (type == boolean.class || type == Boolean.class) {
      must(node.isBoolean(), node, type);
      return node.booleanValue();
    }
    if (node.isTextual()) {
      return ofText(node.textValue(), type);
    }
    return composed(node, type);
  }

  private static Object ofText(String text, Class<?> type) throws IOException {
    if (type == String.class) {
      return text;
    }
    if (type == Path.class) {
      return Path.of(text);
    }
    if (type == URI.class) {
      return URI.create(text);
    }
    if (type == Instant.class) {
      return Instant.parse(text);
    }
    if (type == Duration.class) {
      return Duration.parse(text);
    }
    if (type == byte[].class) {
      return Base64.getDecoder().decode(text);
    }
    if (type.isEnum()) {
      return Arrays.stream(type.getEnumConstants())
          .filter(one -> ((Enum<?>) one).name().equals(text))
          .findFirst()
          .orElseThrow(() -> new IOException(text + " is no " + type.getSimpleName()));
    }
    throw new IOException("a text is no " + type.getSimpleName());
  }

  private static Object composed(JsonNode node, Class<?> type) throws IOException {
    if (type.isRecord()) {
      return record(node, type);
    }
    JsonTypeInfo kinds = type.getAnnotation(JsonTypeInfo.class);
    if (kinds != null) {
      return record(node, kind(node.path(kinds.property()).asText(), type));
    }
    throw new IOException("this is no " + type.getSimpleName());
  }

  private static Class<?> kind(String name, Class<?> type) throws IOException {
    for (JsonSubTypes.Type kind : type.getAnnotation(JsonSubTypes.class).value()) {
      if (kind.name().equals(name)) {
        return kind.value();
      }
    }
    throw new IOException(name + " is no kind of " + type.getSimpleName());
  }

  private static Object record(JsonNode node, Class<?> type) throws IOException {
    RecordForm form = RecordForm.of(type);
    if (form.bare()) {
      Object only = read(node, form.parts().get(0).type());
      return made(() -> form.constructor().newInstance(only));
    }
    must(node.isObject(), node, type);
    List<Object> values = new ArrayList<>();
    for (RecordForm.Part part : form.parts()) {
      values.add(part(node, part));
    }
    return made(() -> form.constructor().newInstance(values.toArray()));
  }

  private static Object part(JsonNode node, RecordForm.Part part) throws IOException {
    if (part.unwrapped()) {
      return record(node, (Class<?>) part.type());
    }
    JsonNode value = node.path(part.name());
    if (!value.isMissingNode()) {
      return read(value, part.type());
    }
    if (!part.mayLack()) {
      throw new IOException("it lacks " + part.name());
    }
    return nothing(part.type());
  }

  private static Object nothing(Type type) {
    if (type instanceof ParameterizedType several) {
      return several.getRawType() == Optional.class ? Optional.empty() : List.of();
    }
    return type == int.class ? (Object) 0 : "";
  }

  private static void must(boolean right, JsonNode node, Class<?> type) throws IOException {
    if (!right) {
      throw new IOException(node.getNodeType() + " is no " + type.getSimpleName());
    }
  }

  /** Something that is called by reflection. */
  private interface Call {
    Object run() throws IOException, ReflectiveOperationException;
  }

  private static Object made(Call call) throws IOException {
    try {
      return call.run();
    } catch (InvocationTargetException e) {
      throw new IOException(e.getCause());
    } catch (ReflectiveOperationException e) {
      throw new IllegalStateException(e);
    }
  }
}
