package jollycrate.json;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonUnwrapped;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.host.StandIn;
import jollycrate.journal.DeliveryRecord;
import jollycrate.journal.EarlierRelease;
import jollycrate.journal.JournalLine;
import jollycrate.journal.Lock;
import jollycrate.script.Undo;
import jollycrate.server.Standing;
import jollycrate.step.Step;
import jollycrate.stock.ProcessRecord;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is kept is read as it was written, and what has another form is not read at all. */
class JsonTest {
  enum Colour {
    RED
  }

  @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "is")
  @JsonSubTypes({
    @JsonSubTypes.Type(value = Bike.class, name = "bike"),
    @JsonSubTypes.Type(value = Trailer.class, name = "trailer")
  })
  sealed interface Vehicle {}

  record Bike(String frame, @JsonUnwrapped Wheels wheels, Colour colour) implements Vehicle {}

  record Trailer(List<Bike> behind, @MayLack List<String> notes, @MayLack Optional<Path> photo)
      implements Vehicle {}

  record Wheels(int count, @MayLack String tyres) {}

  record Ticket(
      long number,
      boolean done,
      double hours,
      Instant at,
      Duration within,
      URI url,
      byte[] photo,
      Path none,
      SortedMap<Path, Optional<Vehicle>> vehicles,
      Map<String, JsonNode> more) {}

  @Test
  void everyTypeIsReadAsItWasWritten() {
    Bike bike = new Bike("a \"steel\" \u001b ü", new Wheels(2, "wide"), Colour.RED);
    Ticket ticket =
        new Ticket(
            1L << 40,
            true,
            0.5,
            Instant.EPOCH,
            Duration.ofMillis(1500),
            URI.create("http://127.0.0.1/a"),
            new byte[] {1, -1},
            null,
            new TreeMap<>(
                Map.of(Path.of("a/b"), Optional.of(bike), Path.of("c"), Optional.empty())),
            Map.of(
                "x", Json.read("[1,2.5,null,{\"a\":12345678901234567890}]", JsonNode.class).get()));
    String line = Json.line(ticket);
    assertThat(line)
        .contains("\"number\":1099511627776", "\"within\":\"PT1.5S\"", "\"none\":null")
        .contains(
            "\"a/b\":{\"is\":\"bike\",\"frame\":", "ü\",\"count\":2,\"tyres\":\"wide\",\"colour\"")
        .contains("\"x\":[1,2.5,null,{\"a\":12345678901234567890}]", "\"c\":null");
    Ticket read = Json.read(line, Ticket.class).orElseThrow();
    assertThat(read).usingRecursiveComparison().isEqualTo(ticket);
    assertThat(Json.read(Json.tree(ticket), Ticket.class))
        .get()
        .usingRecursiveComparison()
        .isEqualTo(ticket);
  }

  @Test
  void whatEarlierLinesLackIsNothing() {
    String line = "{\"is\":\"trailer\",\"behind\":[{\"frame\":\"f\",\"count\":2,\"colour\":null}]}";
    assertThat(Json.read(line, Vehicle.class))
        .contains(
            new Trailer(
                List.of(new Bike("f", new Wheels(2, ""), null)), List.of(), Optional.empty()));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "{\"is\":\"bike\",\"frame\":\"f\",\"count\":2,\"colour\":\"RED\"",
        "{\"is\":\"bike\",\"frame\":\"f\",\"count\":2,\"colour\":\"RED\"} {}",
        "{\"is\":\"boat\",\"frame\":\"f\",\"count\":2,\"colour\":\"RED\"}",
        "{\"frame\":\"f\",\"count\":2,\"colour\":\"RED\"}",
        "{\"is\":\"bike\",\"frame\":\"f\",\"count\":2}",
        "{\"is\":\"bike\",\"frame\":\"f\",\"count\":null,\"colour\":\"RED\"}",
        "{\"is\":\"bike\",\"frame\":\"f\",\"count\":\"2\",\"colour\":\"RED\"}",
        "{\"is\":\"bike\",\"frame\":\"f\",\"count\":2.5,\"colour\":\"RED\"}",
        "{\"is\":\"bike\",\"frame\":\"f\",\"count\":3000000000,\"colour\":\"RED\"}",
        "{\"is\":\"bike\",\"frame\":[],\"count\":2,\"colour\":\"RED\"}",
        "{\"is\":\"bike\",\"frame\":\"f\",\"count\":2,\"colour\":\"PINK\"}",
        "[]",
        "7"
      })
  void anotherFormIsNotRead(String line) {
    assertThat(Json.read(line, Vehicle.class)).isEmpty();
  }

  record Ports(SortedSet<Integer> open) {}

  @Test
  void aRecordThatSomebodyEditedIsNotReadAndNoFault() {
    assertThat(Json.read("{\"open\":[2,1]}", Ports.class))
        .get()
        .isEqualTo(new Ports(new TreeSet<>(Set.of(1, 2))));
    assertThat(Json.read("{\"open\":[1,null]}", Ports.class)).isEmpty();
    assertThat(Json.read("{\"open\":[1,\"2\"]}", Ports.class)).isEmpty();
    assertThat(Json.read("{\"open\":{}}", Ports.class)).isEmpty();
  }

  @Test
  void anAnswerIsReadUpToTheEndOfItsFirstValue() throws IOException {
    assertThat(Json.line(Json.parse("{\"a\":1}\n{\"a\":2}"))).isEqualTo("{\"a\":1}");
    assertThat(Json.parse(" ").isMissingNode()).isTrue();
    assertThat(Json.line(Json.parse("[1e400,1.5,-0]"))).isEqualTo("[\"Infinity\",1.5,0]");
  }

  /** Every type that stands in what is kept is one that is read. */
  @Test
  void allThatIsKeptIsOfSuchTypes() {
    Set<Type> seen = new HashSet<>();
    List.of(
            JournalLine.class,
            Step.class,
            Standing.class,
            ProcessRecord.class,
            Lock.Holder.class,
            DeliveryRecord.class,
            Undo.class,
            EarlierRelease.class,
            DeliveryOutcome.class,
            StandIn.class)
        .forEach(type -> look(type, type.getSimpleName(), seen));
    assertThat(seen).hasSizeGreaterThan(60);
  }

  private static void look(Type type, String way, Set<Type> seen) {
    if (!seen.add(type)) {
      return;
    }
    if (type instanceof ParameterizedType several) {
      assertThat(several.getRawType())
          .as(way)
          .isIn(Optional.class, List.class, Set.class, SortedSet.class, Map.class, SortedMap.class);
      Arrays.stream(several.getActualTypeArguments()).forEach(one -> look(one, way, seen));
      return;
    }
    Class<?> one = (Class<?>) type;
    boolean plain =
        Set.of(int.class, long.class, double.class, boolean.class, String.class, Path.class)
                .contains(one)
            || Set.of(Integer.class, Long.class, Double.class, Boolean.class).contains(one)
            || Set.of(URI.class, Instant.class, Duration.class, byte[].class).contains(one)
            || one.isEnum()
            || JsonNode.class.isAssignableFrom(one);
    if (plain) {
      return;
    }
    if (one.isRecord()) {
      for (RecordComponent part : one.getRecordComponents()) {
        look(part.getGenericType(), way + "." + part.getName(), seen);
      }
    } else if (one.isAnnotationPresent(JsonTypeInfo.class)) {
      List<Class<?>> named =
          Arrays.stream(one.getAnnotation(JsonSubTypes.class).value())
              .<Class<?>>map(JsonSubTypes.Type::value)
              .toList();
      assertThat(named).as(way).containsExactlyInAnyOrder(one.getPermittedSubclasses());
      named.forEach(kind -> look(kind, way, seen));
    } else {
      throw new AssertionError(way + ": " + one);
    }
  }
}
