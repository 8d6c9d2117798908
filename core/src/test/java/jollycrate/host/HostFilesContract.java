package jollycrate.host;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** What files of every host keep to. */
public interface HostFilesContract {
  /** The host under test. */
  HostFiles files();

  /** An empty folder on it. */
  Path folder();

  private Access access() {
    return files().facts(folder()).access().with("rw-r-----");
  }

  @Test
  default void whatIsPutHasItsRightsAndLeavesNothingBeside() {
    Path file = folder().resolve("a");
    files().put(file, Content.of("one"), access());
    files().put(file, Content.of("two"), access().with("rw-------"));
    Facts facts = files().facts(file);
    assertThat(facts.access().mode()).isEqualTo("rw-------");
    assertThat(facts.size()).isEqualTo(3);
    assertThat(files().list(folder())).containsExactly(file);
    assertThat(files().digest(file)).isEqualTo(Content.of("two").digest());
    assertThat(new String(files().read(file, 1, 10))).isEqualTo("wo");
    assertThat(files().read(file, 10, 10)).isEmpty();
    assertThat(files().read(folder().resolve("none"), 0, 10)).isEmpty();
    assertThat(files().read(folder().resolve("none/below"), 0, 10)).isEmpty();
    assertThat(files().read(file.resolve("below"), 0, 10)).isEmpty();
    assertThat(files().real(file.resolve("below"))).isEqualTo(file.resolve("below"));
  }

  @Test
  default void manyAreReadAsEachWouldBe() {
    Path one = folder().resolve("one");
    Path two = folder().resolve("two");
    Path none = folder().resolve("none");
    Path inner = folder().resolve("inner");
    files().put(one, Content.of("a\n\nb"), access());
    files().put(two, Content.of(""), access());
    files().makeFolder(inner, access().with("rwxr-x---"));
    Map<Path, byte[]> texts = files().wholes(List.of(one, none, two), 4);
    assertThat(new String(texts.get(one))).isEqualTo("a\n\nb");
    assertThat(texts.get(two)).isEmpty();
    assertThat(texts.get(none)).isEmpty();
    assertThatThrownBy(() -> files().wholes(List.of(two, one), 3))
        .hasMessageContaining("longer than");
    assertThat(files().digests(List.of(two, none, one)))
        .isEqualTo(Map.of(one, files().digest(one), two, files().digest(two)));
    assertThatThrownBy(() -> files().digest(none)).isInstanceOf(AbsentException.class);
    assertThat(files().lists(List.of(folder(), inner, none)))
        .isEqualTo(Map.of(folder(), List.of(inner, one, two), inner, List.of(), none, List.of()));
  }

  @Test
  default void whatIsAppendedOrWrittenOverStandsWhereItShould() {
    Path file = folder().resolve("log");
    files().put(file, Content.of("abc"), access());
    files().append(file, "d".getBytes());
    files().write(file, 1, "XY".getBytes());
    files().write(file, 4, "ef".getBytes());
    assertThat(new String(files().whole(file, 6))).isEqualTo("aXYdef");
    assertThatThrownBy(() -> files().whole(file, 5)).hasMessageContaining("longer than");
  }

  @Test
  default void aCopyHasTheSameBytesAndRights() {
    Path from = folder().resolve("from");
    files().put(from, Content.of("one"), access().with("rw-rw----"));
    Path to = folder().resolve("to");
    files().copy(from, to);
    files().touch(to);
    assertThat(files().digest(to)).isEqualTo(files().digest(from));
    assertThat(files().facts(to).access()).isEqualTo(files().facts(from).access());
    assertThat(files().list(folder())).containsExactly(from, to);
  }

  @Test
  default void foldersAreMadeAndDeletedOneByOne() {
    Path inner = folder().resolve("a/b");
    assertThatThrownBy(() -> files().makeFolder(inner, access())).isInstanceOf(HostException.class);
    files().makeFolder(inner.getParent(), access().with("rwxr-x---"));
    files().makeFolder(inner, access().with("rwx------"));
    assertThat(files().facts(inner).isFolder()).isTrue();
    assertThat(files().facts(inner).access().mode()).isEqualTo("rwx------");
    assertThatThrownBy(() -> files().delete(inner.getParent())).isInstanceOf(HostException.class);
    files().delete(inner);
    files().delete(inner);
    assertThat(files().list(inner.getParent())).isEmpty();
  }

  @Test
  default void aMoveReplaces() {
    Path from = folder().resolve("from");
    Path to = folder().resolve("to");
    files().put(from, Content.of("new"), access());
    files().put(to, Content.of("old"), access());
    files().move(from, to);
    assertThat(new String(files().read(to, 0, 9))).isEqualTo("new");
    assertThat(files().facts(from).exists()).isFalse();
  }
}
