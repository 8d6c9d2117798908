package jollycrate.json;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.InjectableValues;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.deser.std.StdScalarDeserializer;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.module.SimpleModule;
import com.fasterxml.jackson.databind.ser.std.StdScalarSerializer;
import com.fasterxml.jackson.databind.ser.std.ToStringSerializer;
import com.fasterxml.jackson.datatype.jdk8.Jdk8Module;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/** JSON as our records use it: paths, times and lengths of time as texts, one line. */
public final class Json {
  /** Marks a text that lines of earlier versions lack, and that is empty then. */
  public static final String ABSENT = "absent";

  /** The same of a second text of a record. */
  public static final String ABSENT_SECOND = "absent second";

  /** Marks a number that lines of earlier versions lack, and that is 0 then. */
  public static final String ABSENT_NUMBER = "absent number";

  /** Marks a list that lines of earlier versions lack, and that is empty then. */
  public static final String ABSENT_LIST = "absent list";

  /** The same of a second one in a record: a mark stands once in each. */
  public static final String ABSENT_SECOND_LIST = "absent second list";

  /** Marks what may be absent and is so in lines of earlier versions. */
  public static final String ABSENT_VALUE = "absent value";

  /** The same of a second one. */
  public static final String ABSENT_SECOND_VALUE = "absent second value";

  /** The same of a third one. */
  public static final String ABSENT_THIRD_VALUE = "absent third value";

  private static final ObjectMapper MAPPER = mapper(texts());
  private static final ObjectMapper TOLD = mapper(inMilliseconds());

  /** Made when it is needed: it knows values that may be absent, which lines are read without. */
  private static final class Documents {
    private static final ObjectMapper MAPPER = mapper(texts()).registerModule(new Jdk8Module());
  }

  private Json() {}

  private static ObjectMapper mapper(SimpleModule module) {
    return JsonMapper.builder()
        .addModule(module)
        .injectableValues(
            new InjectableValues.Std()
                .addValue(ABSENT, "")
                .addValue(ABSENT_SECOND, "")
                .addValue(ABSENT_NUMBER, 0)
                .addValue(ABSENT_LIST, List.of())
                .addValue(ABSENT_SECOND_LIST, List.of())
                .addValue(ABSENT_VALUE, Optional.empty())
                .addValue(ABSENT_SECOND_VALUE, Optional.empty())
                .addValue(ABSENT_THIRD_VALUE, Optional.empty()))
        .disable(SerializationFeature.FAIL_ON_EMPTY_BEANS)
        .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
        .enable(DeserializationFeature.FAIL_ON_MISSING_CREATOR_PROPERTIES)
        .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
        .build();
  }

  /** The mapper for documents that machines read: lengths of time are numbers of milliseconds. */
  public static ObjectMapper told() {
    return TOLD;
  }

  /** A value as one line. */
  public static String line(Object value) {
    try {
      return MAPPER.writeValueAsString(value);
    } catch (JsonProcessingException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** What is wrong with a text that is no JSON or YAML, or that is nested too deeply. */
  public static String fault(JacksonException e) {
    JsonLocation place = e.getLocation();
    String first = e.getOriginalMessage().lines().findFirst().orElse("it is not understood");
    return place == null || place.getLineNr() < 1
        ? first
        : "line " + place.getLineNr() + ": " + first;
  }

  /** A line as a value; empty when it is torn or of another form. */
  public static <T> Optional<T> read(byte[] line, Class<T> type) {
    try {
      return Optional.ofNullable(MAPPER.readValue(line, type));
    } catch (IOException e) {
      return Optional.empty();
    }
  }

  /** A whole document as a value; empty when it is of another form. */
  public static <T> Optional<T> document(byte[] text, Class<T> type) {
    try {
      return Optional.ofNullable(Documents.MAPPER.readValue(text, type));
    } catch (IOException e) {
      return Optional.empty();
    }
  }

  /** The same of one that was read already. */
  public static <T> Optional<T> document(JsonNode tree, Class<T> type) {
    try {
      return Optional.ofNullable(Documents.MAPPER.treeToValue(tree, type));
    } catch (JsonProcessingException e) {
      return Optional.empty();
    }
  }

  /** A value as a document that {@link #document} reads. */
  public static JsonNode tree(Object value) {
    return MAPPER.valueToTree(value);
  }

  /** A line as a value; empty when it is torn or of another form. */
  public static <T> Optional<T> read(String line, Class<T> type) {
    return read(line.getBytes(StandardCharsets.UTF_8), type);
  }

  private static SimpleModule texts() {
    SimpleModule module = new SimpleModule("texts");
    text(module, Path.class, Path::of);
    text(module, Duration.class, Duration::parse);
    text(module, Instant.class, Instant::parse);
    module.addSerializer(Optional.class, new OptionalSerializer());
    return module;
  }

  private static SimpleModule inMilliseconds() {
    SimpleModule module = texts();
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
    return module;
  }

  private static <T> void text(SimpleModule module, Class<T> type, Function<String, T> reader) {
    module.addSerializer(type, ToStringSerializer.instance);
    module.addDeserializer(
        type,
        new StdScalarDeserializer<T>(type) {
          private static final long serialVersionUID = 1L;

          @Override
          public T deserialize(JsonParser parser, DeserializationContext context)
              throws IOException {
            return reader.apply(parser.getText());
          }
        });
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
