package jollycrate.check;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import org.apache.hc.core5.http.ContentType;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.parser.Parser;

/**
 * The text of a body in the encoding that it has: the one that its type names (RFC 9110, section
 * 8.3.2), else the one that a page names in itself, else UTF-8, and ISO 8859-1 for what is not.
 */
final class BodyText {
  private static final int DEEPEST = 512;

  /** Where a page may name its encoding (HTML, "determining the character encoding"). */
  private static final int MOST_OF_HEAD = 64 << 10;

  private BodyText() {}

  static String of(String type, byte[] body) {
    Optional<Charset> told = told(type);
    if (told.isPresent()) {
      return new String(body, told.get());
    }
    boolean ascii = true;
    for (byte b : body) {
      ascii = ascii && b > 0;
    }
    if (ascii) {
      return new String(body, StandardCharsets.US_ASCII);
    }
    boolean page = type.toLowerCase(Locale.ROOT).contains("html");
    return page ? new String(body, toldInside(body)) : guessed(body);
  }

  /** An encoding that nobody knows is as good as none. */
  private static Optional<Charset> told(String type) {
    try {
      return Optional.ofNullable(ContentType.parseLenient(type)).map(ContentType::getCharset);
    } catch (IllegalArgumentException unknown) {
      return Optional.empty();
    }
  }

  /** A page, as deep as any that people write. */
  static Document page(String html, URI url) {
    return Jsoup.parse(html, url.toString(), bounded());
  }

  private static Parser bounded() {
    return Parser.htmlParser().setMaxDepth(DEEPEST);
  }

  private static Charset toldInside(byte[] page) {
    try {
      byte[] head = Arrays.copyOf(page, Math.min(page.length, MOST_OF_HEAD));
      return Jsoup.parse(new ByteArrayInputStream(head), null, "", bounded()).charset();
    } catch (IllegalArgumentException unknown) {
      return StandardCharsets.UTF_8;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static String guessed(byte[] body) {
    try {
      return StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(body)).toString();
    } catch (CharacterCodingException e) {
      return new String(body, StandardCharsets.ISO_8859_1);
    }
  }
}
