package jollycrate.json;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.module.SimpleModule;
import com.fasterxml.jackson.databind.ser.std.StdScalarSerializer;
import com.fasterxml.jackson.databind.ser.std.ToStringSerializer;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

/** JSON as our records use it: paths, times and lengths of time as texts, one line. */
public final class Json {
  /** Made when it is needed: a mapper costs a start more than all that a command reads. */
  private static final class Documents {
    private static final ObjectMapper MAPPER = mapper();
  }

  private Json() {}

  /** The mapper for documents that machines read: lengths of time are numbers of milliseconds. */
  public static ObjectMapper told() {
    return Documents.MAPPER;
  }

  /** A value as one line. */
  public static String line(Object value) {
    StringWriter text = new StringWriter();
    try (JsonGenerator out = JsonTrees.FACTORY.createGenerator(text)) {
      new RecordWriter(out).write(value);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return text.toString();
  }

  /** What is wrong with a text that is no JSON or YAML, or that is nested too deeply. */
  public static String fault(JacksonException e) {
    JsonLocation place = e.getLocation();
    String first = e.getOriginalMessage().lines().findFirst().orElse("it is not understood");
    return place == null || place.getLineNr() < 1
        ? first
        : "line " + place.getLineNr() + ": " + first;
  }

  /** A line, or a whole document, as a value; empty when it is torn or of another form. */
  public static <T> Optional<T> read(byte[] text, Class<T> type) {
    try {
      return value(JsonTrees.whole(JsonTrees.FACTORY.createParser(text)), type);
    } catch (IOException e) {
      return Optional.empty();
    }
  }

  /** The same of a text. */
  public static <T> Optional<T> read(String text, Class<T> type) {
    return read(text.getBytes(StandardCharsets.UTF_8), type);
  }

  /** The same of what was read already. */
  public static <T> Optional<T> read(JsonNode tree, Class<T> type) {
    try {
      return value(tree, type);
    } catch (IOException e) {
      return Optional.empty();
    }
  }

  private static <T> Optional<T> value(JsonNode tree, Class<T> type) throws IOException {
    return tree.isMissingNode()
        ? Optional.empty()
        : Optional.ofNullable(type.cast(RecordReader.read(tree, type)));
  }

  /**
   * The first value of a text of somebody else as a tree, as an answer may hold several, a line
   * each; a missing node where there is none.
   *
   * @throws JsonProcessingException when it is no JSON, with its place
   */
  public static JsonNode parse(String text) throws JsonProcessingException {
    try {
      return JsonTrees.first(JsonTrees.FACTORY.createParser(text));
    } catch (JsonProcessingException e) {
      throw e;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** A value as a tree that {@link #read(JsonNode, Class)} reads. */
  public static JsonNode tree(Object value) {
    try {
      return parse(line(value));
    } catch (JsonProcessingException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static ObjectMapper mapper() {
    SimpleModule module = new SimpleModule("texts");
    module.addSerializer(Path.class, ToStringSerializer.instance);
    module.addSerializer(Instant.class, ToStringSerializer.instance);
    module.addSerializer(Optional.class, new OptionalSerializer());
    module.addSerializer(
        Duration.class,
        new StdScalarSerializer<>(Duration.class) {
          private static final long serialVersionUID = 1L;

          @Override
          public void serialize(Duration value, JsonGenerator out, SerializerProvider provider)
              throws IOException {
            out.writeNumber(value.toMillis());
          }
        });
    return JsonMapper.builder()
        .addModule(module)
        .disable(SerializationFeature.FAIL_ON_EMPTY_BEANS)
        .build();
  }

  /** An absent value is null. */
  @SuppressWarnings("rawtypes")
  private static final class OptionalSerializer extends StdScalarSerializer<Optional> {
    private static final long serialVersionUID = 1L;

    OptionalSerializer() {
      super(Optional.class);
    }

    @Override
    public void serialize(Optional value, JsonGenerator out, SerializerProvider provider)
        throws IOException {
      provider.defaultSerializeValue(((Optional<?>) value).orElse(null), out);
    }
  }
}
