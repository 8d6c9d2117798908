package jollycrate.check;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.SequenceInputStream;
import java.util.Map;
import java.util.zip.GZIPInputStream;
import jollycrate.file.Digests;

/** What comes behind the headers, read to its end; of a very long one the beginning is kept. */
final class CameBody {
  private static final int MOST_KEPT = 8 << 20;

  private CameBody() {}

  /**
   * Reads it.
   *
   * @throws IOException also when it is not compressed as it says (RFC 9110, section 8.4)
   */
  static Answer.Body read(Map<String, String> headers, InputStream in) throws IOException {
    String coding = headers.getOrDefault("Content-Encoding", "");
    boolean compressed = coding.equalsIgnoreCase("gzip") || coding.equalsIgnoreCase("x-gzip");
    InputStream body = compressed ? new GZIPInputStream(in) : in;
    byte[] kept = body.readNBytes(MOST_KEPT);
    String text = BodyText.of(headers.getOrDefault("Content-Type", ""), kept);
    if (kept.length < MOST_KEPT) {
      return new Answer.Body(text, kept.length, () -> Digests.of(kept));
    }
    Counted all = new Counted();
    String digest =
        Digests.copying(new SequenceInputStream(new ByteArrayInputStream(kept), body), all);
    return new Answer.Body(text, all.bytes, () -> digest);
  }

  private static final class Counted extends OutputStream {
    private long bytes;

    @Override
    public void write(int one) {
      bytes++;
    }

    @Override
    public void write(byte[] some, int offset, int length) {
      bytes += length;
    }
  }
}
