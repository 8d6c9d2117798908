package jollycrate.journal;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.Glance;
import jollycrate.host.HostFiles;
import jollycrate.json.Json;

/** The deliveries to one server, oldest first. */
public final class Deliveries {
  private static final int MOST_BYTES = 64 << 20;

  private final HostFiles files;
  private final Path file;

  /** Recorded in that file. */
  public Deliveries(HostFiles files, Path file) {
    this.files = files;
    this.file = file;
  }

  /** Every delivery; torn lines are passed over. */
  public List<DeliveryRecord> all() {
    return all(text());
  }

  private static List<DeliveryRecord> all(String text) {
    List<DeliveryRecord> records = new ArrayList<>();
    for (String line : text.split("\n")) {
      Json.read(line, DeliveryRecord.class).ifPresent(records::add);
    }
    return records;
  }

  private String text() {
    return new String(files.read(file, 0, MOST_BYTES), StandardCharsets.UTF_8);
  }

  /** What reading them is going to read. */
  public Glance glance() {
    return new Glance().part(file, 0, MOST_BYTES);
  }

  /** Number of the last delivery; 0 before the first. */
  public int last() {
    return all().stream().mapToInt(DeliveryRecord::delivery).max().orElse(0);
  }

  /** Adds a record unless that delivery has one. */
  public void add(DeliveryRecord record, Access access) {
    String text = text();
    if (all(text).stream().anyMatch(known -> known.delivery() == record.delivery())) {
      return;
    }
    if (text.isEmpty()) {
      files.put(file, Content.of(Json.line(record) + "\n"), access);
      return;
    }
    String start = text.endsWith("\n") ? "" : "\n";
    files.append(file, (start + Json.line(record) + "\n").getBytes(StandardCharsets.UTF_8));
  }
}
