package jollycrate.cli.output;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.function.UnaryOperator;
import jollycrate.file.PlainText;
import jollycrate.json.Json;
import jollycrate.secret.Secrets;

/** The one way out: every text passes here and loses what is secret, or would steer a terminal. */
public final class Screen {
  private static final String CLEAR_LINE = "\r\u001b[K";

  private final PrintStream out;
  private final PrintStream err;
  private final Style style;
  private final Secrets secrets;
  private final SlowNotes slow;
  private boolean drawn;

  /** Over two streams. */
  public Screen(PrintStream out, PrintStream err, Style style, Secrets secrets) {
    this.out = new PrintStream(out, true, StandardCharsets.UTF_8);
    this.err = new PrintStream(err, true, StandardCharsets.UTF_8);
    this.style = style;
    this.secrets = secrets;
    this.slow = new SlowNotes(text -> this.err.println(fit(text)));
  }

  /**
   * The same screen with secrets of another environment.
   *
   * @param environment value of a variable, null when it is not set
   */
  public Screen resolving(UnaryOperator<String> environment) {
    return new Screen(out, err, style, new Secrets(environment));
  }

  /** How text is set off. */
  public Style style() {
    return style;
  }

  /** What is hidden. */
  public Secrets secrets() {
    return secrets;
  }

  /** The standard output. */
  public PrintStream out() {
    return out;
  }

  /** The standard error. */
  public PrintStream err() {
    return err;
  }

  /** Masked last: a secret may be told in pieces, with something between that is not seen. */
  private String fit(String text) {
    return secrets.mask(style.colour() ? PlainText.withLooks(text) : PlainText.of(text));
  }

  /** A line of the result. */
  public void line(String text) {
    clear();
    out.println(fit(text));
  }

  /** An empty line of the result. */
  public void gap() {
    line("");
  }

  /** A note beside the result. */
  public void note(String text) {
    clear();
    err.println(fit(text));
  }

  /** Why a command could not be carried out. */
  public void complain(String text) {
    clear();
    err.println(style.live() ? style.bad("jolly: ") + fit(text) : "jolly: " + fit(text));
  }

  /** What goes on, drawn over by whatever comes next; told once it takes long if nobody watches. */
  public void live(String text) {
    if (!style.live()) {
      slow.goesOn(text);
    } else {
      String masked = fit(text);
      String cut = masked.substring(0, Math.min(masked.length(), style.width() - 2));
      err.print(CLEAR_LINE + style.faint(cut));
      err.flush();
      drawn = true;
    }
  }

  /**
   * Lines of the result that are drawn over those which were drawn here before.
   *
   * @param before how many those are
   */
  public void redraw(int before, List<String> lines) {
    StringBuilder text = new StringBuilder();
    if (before > 0) {
      text.append("\u001b[").append(before).append("F\u001b[J");
    }
    lines.forEach(line -> text.append(style.cut(fit(line))).append('\n'));
    out.print(text);
    out.flush();
  }

  private void clear() {
    slow.done();
    if (drawn) {
      err.print(CLEAR_LINE);
      err.flush();
      drawn = false;
    }
  }

  /** One document; only texts can hold a secret, so that it stays a document. */
  public void json(Object document) {
    JsonNode masked = secrets.mask(Json.told().valueToTree(document));
    try {
      clear();
      out.println(Json.told().writerWithDefaultPrettyPrinter().writeValueAsString(masked));
    } catch (JsonProcessingException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** A stack trace. */
  public void trace(Throwable e) {
    StringWriter text = new StringWriter();
    e.printStackTrace(new PrintWriter(text));
    note(text.toString());
  }
}
