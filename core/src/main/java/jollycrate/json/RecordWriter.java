package jollycrate.json;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.lang.reflect.Method;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.Map;
import java.util.Optional;

/** Writes records as JSON, each part under its name; an absent value is null. */
final class RecordWriter {
  private final JsonGenerator out;

  RecordWriter(JsonGenerator out) {
    this.out = out;
  }

  /** A value of any type that {@link RecordReader} reads. */
  void write(Object value) throws IOException {
    if (value == null) {
      out.writeNull();
    } else if (value instanceof Optional<?> perhaps) {
      write(perhaps.orElse(null));
    } else if (value instanceof JsonNode tree) {
      JsonTrees.write(tree, out);
    } else if (value instanceof Record) {
      record(value);
    } else if (value instanceof Collection<?> values) {
      out.writeStartArray();
      for (Object one : values) {
        write(one);
      }
      out.writeEndArray();
    } else if (value instanceof Map<?, ?> map) {
      out.writeStartObject();
      for (Map.Entry<?, ?> entry : map.entrySet()) {
        out.writeFieldName(text(entry.getKey()));
        write(entry.getValue());
      }
      out.writeEndObject();
    } else {
      scalar(value);
    }
  }

  private void scalar(Object value) throws IOException {
    if (value instanceof Integer number) {
      out.writeNumber(number);
    } else if (value instanceof Long number) {
      out.writeNumber(number);
    } else if (value instanceof Double number) {
      out.writeNumber(number);
    } else if (value instanceof Boolean flag) {
      out.writeBoolean(flag);
    } else if (value instanceof byte[] bytes) {
      out.writeBinary(bytes);
    } else if (isText(value)) {
      out.writeString(text(value));
    } else {
      throw new IllegalArgumentException("nothing says how to write " + value.getClass());
    }
  }

  private static boolean isText(Object value) {
    return value instanceof String
        || value instanceof Enum
        || value instanceof Path
        || value instanceof URI
        || value instanceof Instant
        || value instanceof Duration;
  }

  private static String text(Object value) {
    return value instanceof Enum<?> one ? one.name() : value.toString();
  }

  private void record(Object value) throws IOException {
    RecordForm form = RecordForm.of(value.getClass());
    if (form.bare()) {
      write(called(form.parts().get(0).accessor(), value));
      return;
    }
    out.writeStartObject();
    parts(value, form);
    out.writeEndObject();
  }

  private void parts(Object value, RecordForm form) throws IOException {
    if (form.kind().isPresent()) {
      out.writeStringField(form.kind().get().getKey(), form.kind().get().getValue());
    }
    for (RecordForm.Part part : form.parts()) {
      Object held = called(part.accessor(), value);
      if (part.unwrapped()) {
        parts(held, RecordForm.of(held.getClass()));
      } else {
        out.writeFieldName(part.name());
        write(held);
      }
    }
  }

  private static Object called(Method method, Object value) {
    try {
      return method.invoke(value);
    } catch (ReflectiveOperationException e) {
      throw new IllegalStateException(e);
    }
  }
}
