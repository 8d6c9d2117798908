package jollycrate.cli.output;

import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import jollycrate.check.CheckResult;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.foresee.Finding;
import jollycrate.server.Cause;

/**
 * An act and its checks in the XML that JUnit's runner for Ant writes, which every pipeline reads:
 * a suite with a case for the act itself and one for each check.
 */
public final class JUnitReport {
  private static final double MILLIS = 1000;

  /** What may not stand in XML at all (XML 1.0, section 2.2). */
  private static final String NO_CHARACTER =
      "[^\\t\\n\\r\\x20-\\uD7FF\\uE000-\\uFFFD\\x{10000}-\\x{10FFFF}]";

  private final DeliveryOutcome outcome;
  private final boolean right;
  private final UnaryOperator<String> mask;

  /**
   * @param right whether the act came to a good end
   * @param mask takes secrets out of a text
   */
  public JUnitReport(DeliveryOutcome outcome, boolean right, UnaryOperator<String> mask) {
    this.outcome = outcome;
    this.right = right;
    this.mask = mask;
  }

  /** Writes it. */
  public void write(Path file) throws IOException {
    try (Writer out = Files.newBufferedWriter(file, StandardCharsets.UTF_8)) {
      XMLStreamWriter xml = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(out);
      suite(xml);
      xml.flush();
    } catch (XMLStreamException e) {
      throw new IOException(e);
    }
  }

  private void suite(XMLStreamWriter xml) throws XMLStreamException {
    List<CheckResult> checks = outcome.checks();
    String act = outcome.aim().act();
    String server = outcome.aim().place().server();
    String name = outcome.aim().release().name() + DeliveryView.preposition(act) + server;
    long failed = checks.stream().filter(check -> !check.passed()).count() + (right ? 0 : 1);
    xml.writeStartDocument("UTF-8", "1.0");
    xml.writeCharacters("\n");
    xml.writeStartElement("testsuite");
    attribute(xml, "name", act + " " + name);
    attribute(xml, "tests", "" + (checks.size() + 1));
    attribute(xml, "failures", "" + failed);
    attribute(xml, "errors", "0");
    attribute(xml, "skipped", "0");
    attribute(xml, "time", seconds(Duration.ofMillis(outcome.millis())));
    String group = outcome.aim().release().application() + "." + server;
    begin(xml, act, group, Duration.ofMillis(outcome.millis()));
    if (!right) {
      failure(xml, ended(), outcome.cause().map(JUnitReport::told).orElseGet(this::blockers));
    }
    xml.writeEndElement();
    for (CheckResult check : checks) {
      begin(xml, check.name(), group, check.took());
      if (!check.passed()) {
        failure(
            xml,
            missed(check),
            check.request() + check.cause().map(c -> "\n" + told(c)).orElse(""));
      }
      xml.writeEndElement();
    }
    xml.writeCharacters("\n");
    xml.writeEndElement();
    xml.writeCharacters("\n");
  }

  private String ended() {
    String how = outcome.result().name().toLowerCase(Locale.ROOT).replace('_', ' ');
    return how
        + outcome
            .cause()
            .map(cause -> ": " + cause.what())
            .or(() -> blocking().map(it -> ": " + it.subject() + ": " + it.message()).findFirst())
            .orElse("");
  }

  private Stream<Finding> blocking() {
    return outcome.findings().stream().filter(it -> it.level() == Finding.Level.BLOCKER);
  }

  private String blockers() {
    return blocking()
        .map(it -> it.subject() + ": " + it.message() + "\n" + it.seen() + "\n" + it.fix())
        .collect(Collectors.joining("\n"))
        .replaceAll("\n+", "\n")
        .strip();
  }

  /** Of a command that could not be carried out, so that a pipeline shows why. */
  public static void write(Path file, String command, String reason, UnaryOperator<String> mask)
      throws IOException {
    try (Writer out = Files.newBufferedWriter(file, StandardCharsets.UTF_8)) {
      XMLStreamWriter xml = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(out);
      String clean = mask.apply(reason).replaceAll(NO_CHARACTER, "?");
      xml.writeStartDocument("UTF-8", "1.0");
      xml.writeCharacters("\n");
      xml.writeStartElement("testsuite");
      xml.writeAttribute("name", command);
      for (String count : List.of("tests", "failures")) {
        xml.writeAttribute(count, "1");
      }
      xml.writeStartElement("testcase");
      xml.writeAttribute("name", command);
      xml.writeAttribute("classname", "jolly");
      xml.writeStartElement("failure");
      xml.writeAttribute("message", clean.lines().findFirst().orElse(""));
      xml.writeCharacters(clean);
      xml.writeEndElement();
      xml.writeEndElement();
      xml.writeEndElement();
      xml.writeCharacters("\n");
      xml.flush();
    } catch (XMLStreamException e) {
      throw new IOException(e);
    }
  }

  private static String missed(CheckResult check) {
    return check.misses().stream()
        .map(miss -> miss.what() + " expected " + miss.expected() + ", got " + miss.got())
        .collect(Collectors.joining("; "));
  }

  private static String told(Cause cause) {
    String why = String.join("\n", cause.why());
    return String.join("\n", cause.what(), cause.where(), why, cause.next())
        .replaceAll("\n+", "\n")
        .strip();
  }

  private void begin(XMLStreamWriter xml, String name, String group, Duration took)
      throws XMLStreamException {
    xml.writeCharacters("\n  ");
    xml.writeStartElement("testcase");
    attribute(xml, "name", name);
    attribute(xml, "classname", group);
    attribute(xml, "time", seconds(took));
  }

  private void failure(XMLStreamWriter xml, String message, String text) throws XMLStreamException {
    xml.writeStartElement("failure");
    attribute(xml, "message", message);
    xml.writeCharacters(clean(text));
    xml.writeEndElement();
  }

  private void attribute(XMLStreamWriter xml, String name, String value) throws XMLStreamException {
    xml.writeAttribute(name, clean(value));
  }

  private String clean(String text) {
    return mask.apply(text).replaceAll(NO_CHARACTER, "?");
  }

  private static String seconds(Duration took) {
    return String.format(Locale.ROOT, "%.3f", took.toMillis() / MILLIS);
  }
}
