package jollycrate.check;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.Map;
import java.util.zip.GZIPInputStream;
import jollycrate.file.Digests;

/** What comes behind the headers, read to its end; of a very long one the beginning is kept. */
final class CameBody extends OutputStream {
  private static final int MOST_KEPT = 8 << 20;

  private final ByteArrayOutputStream kept = new ByteArrayOutputStream();
  private long bytes;

  private CameBody() {}

  /**
   * Reads it.
   *
   * @throws IOException also when it is not compressed as it says (RFC 9110, section 8.4)
   */
  static Answer.Body read(Map<String, String> headers, InputStream in) throws IOException {
    String coding = headers.getOrDefault("Content-Encoding", "");
    boolean compressed = coding.equalsIgnoreCase("gzip") || coding.equalsIgnoreCase("x-gzip");
    CameBody came = new CameBody();
    String digest = Digests.copying(compressed ? new GZIPInputStream(in) : in, came);
    String type = headers.getOrDefault("Content-Type", "");
    return new Answer.Body(BodyText.of(type, came.kept.toByteArray()), came.bytes, digest);
  }

  @Override
  public void write(int one) {
    write(new byte[] {(byte) one}, 0, 1);
  }

  @Override
  public void write(byte[] some, int offset, int length) {
    kept.write(some, offset, Math.min(length, MOST_KEPT - kept.size()));
    bytes += length;
  }
}
