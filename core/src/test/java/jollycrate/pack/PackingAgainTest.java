package jollycrate.pack;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import jollycrate.artifact.ZipArchive;
import jollycrate.file.Stamp;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What did not change is taken from the earlier artifact; what did, never, however it hides. */
class PackingAgainTest {
  private static final FileTime OLD = FileTime.fromMillis(1_700_000_000_000L);

  private static final long CLOCKS_APART = TimeUnit.MILLISECONDS.toNanos(100);

  @TempDir Path folder;
  private Project project;
  private final Random random = new Random(11);

  @BeforeEach
  void project() throws IOException {
    project = new Project(folder);
    for (int i = 0; i < 30; i++) {
      write(file(i), "bell " + i);
    }
    project.file("web/long.txt", "wheel and brake ".repeat(200_000));
  }

  private Path file(int number) {
    return folder.resolve("classes/shop/Part" + number + ".class");
  }

  private void write(Path file, String text) throws IOException {
    Files.createDirectories(file.getParent());
    Files.writeString(file, (text + " " + random.nextInt(10) + "x".repeat(200)).substring(0, 200));
    Files.setLastModifiedTime(file, OLD);
  }

  private Path pack() {
    return project.pack(Shape.WAR).file();
  }

  /** The clock goes on until no other change can have the same stamp. */
  private void settle() throws IOException {
    Stamp last = Stamp.of(folder.resolve("web/long.txt")).orElseThrow();
    while (!last.isSettledAt(now() - CLOCKS_APART)) {
      Thread.onSpinWait();
    }
  }

  private static long now() {
    return TimeUnit.MILLISECONDS.toNanos(System.currentTimeMillis());
  }

  @Test
  void whateverBecomesOfTheFilesTheArtifactIsAsIfPackedAnew() throws IOException {
    settle();
    Path artifact = pack();
    Path kept = folder.resolve("kept.war");
    Files.copy(artifact, kept);
    for (int round = 0; round < 40; round++) {
      happen(random.nextInt(8), artifact, kept);
      pack();
      Path again = folder.resolve("again.war");
      Files.move(artifact, again, StandardCopyOption.REPLACE_EXISTING);
      assertThat(Files.mismatch(again, pack())).as("round " + round).isEqualTo(-1);
      Files.move(again, artifact, StandardCopyOption.REPLACE_EXISTING);
    }
  }

  private void happen(int what, Path artifact, Path kept) throws IOException {
    Path one = file(random.nextInt(30));
    Path other = file(random.nextInt(30));
    Path aside = folder.resolve("aside");
    switch (what) {
      case 0 -> write(one, "same size, same time");
      case 1 -> {
        write(aside, "put in its place");
        Files.move(aside, one, StandardCopyOption.REPLACE_EXISTING);
      }
      case 2 -> {
        Files.move(one, aside);
        Files.copy(other.equals(one) ? aside : other, one, StandardCopyOption.COPY_ATTRIBUTES);
        Files.move(aside, other, StandardCopyOption.REPLACE_EXISTING);
      }
      case 3 -> Files.setLastModifiedTime(one, OLD);
      case 4 -> Files.copy(kept, artifact, StandardCopyOption.REPLACE_EXISTING);
      case 5 -> Files.write(index(artifact), new byte[random.nextInt(2000)]);
      case 6 -> {
        pack();
        write(one, "changed a moment after it was packed");
      }
      default -> {
        byte[] index = Files.exists(index(artifact)) ? Files.readAllBytes(index(artifact)) : null;
        write(one, "under the index of before");
        pack();
        if (index != null) {
          Files.write(index(artifact), index);
        }
      }
    }
  }

  private static Path index(Path artifact) {
    return artifact.resolveSibling(".shop.war.index");
  }

  @Test
  void aFileCountsAsReadOnceNothingCanHide() throws IOException {
    Path artifact = pack();
    assertThat(known(artifact)).isEmpty();
    settle();
    pack();
    assertThat(known(artifact)).hasSize(31);
    write(file(3), "just changed");
    pack();
    assertThat(known(artifact)).hasSize(30).doesNotContain("WEB-INF/classes/shop/Part3.class");
  }

  private List<String> known(Path artifact) throws IOException {
    try (ZipArchive archive = ZipArchive.open(artifact)) {
      PackIndex index = PackIndex.of(artifact, archive, PackRequest.FIXED_TIME);
      List<String> known = new ArrayList<>();
      for (var member : archive.members()) {
        Path file = folder.resolve(member.name().replaceFirst("WEB-INF/", ""));
        Path found = Files.exists(file) ? file : folder.resolve("web/" + member.name());
        if (Files.exists(found) && index.knows(member.name(), Stamp.of(found).orElseThrow())) {
          known.add(member.name());
        }
      }
      return known;
    }
  }
}
