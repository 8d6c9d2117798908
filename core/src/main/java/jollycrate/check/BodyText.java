package jollycrate.check;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import org.apache.hc.core5.http.ContentType;
import org.jsoup.Jsoup;

/**
 * The text of a body in the encoding that it has: the one that its type names (RFC 9110, section
 * 8.3.2), else the one that a page names in itself, else UTF-8, and ISO 8859-1 for what is not.
 */
final class BodyText {
  private BodyText() {}

  static String of(String type, byte[] body) {
    ContentType told = ContentType.parseLenient(type);
    if (told != null && told.getCharset() != null) {
      return new String(body, told.getCharset());
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

  private static Charset toldInside(byte[] page) {
    try {
      return Jsoup.parse(new ByteArrayInputStream(page), null, "").charset();
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
