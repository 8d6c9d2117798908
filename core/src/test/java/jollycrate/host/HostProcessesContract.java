package jollycrate.host;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** What processes of every host keep to. */
public interface HostProcessesContract extends HostFilesContract {
  /** The host under test. */
  HostProcesses processes();

  @Test
  default void whoeverAsksRunsAndAnotherStartOfHisIdDoesNot() {
    Identity self = processes().self();
    assertThat(processes().life(self)).isEqualTo(Life.RUNS);
    assertThat(self.boot()).isEqualTo(processes().boot());
    Identity later = new Identity(self.boot(), self.space(), 4_194_303, self.ticks() + 1);
    assertThat(processes().life(later)).isEqualTo(Life.GONE);
  }

  @Test
  default void whereNobodyIsThatIsKnown() {
    assertThat(processes().programs("no-such-argument").orElse(null)).isEqualTo(List.of());
    assertThat(processes().ports(List.of()).orElse(null)).isEqualTo(Set.of());
    assertThat(processes().connections(1).orElse(null)).isZero();
  }

  @Test
  default void aLockIsHeldUntilItIsLetGoAndByOneAlone() {
    Path lock = folder().resolve("lock");
    Access access = files().facts(folder()).access().with("rw-r-----");
    Hold hold = processes().hold(lock, "mine", access).orElseThrow();
    assertThat(processes().hold(lock, "yours", access)).isEmpty();
    assertThat(new String(files().read(lock, 0, 9)).strip()).isEqualTo("mine");
    assertThat(hold.stands()).isTrue();
    files().delete(lock);
    assertThat(hold.stands()).isFalse();
    Hold other = processes().hold(lock, "yours", access).orElseThrow();
    assertThat(hold.stands()).isFalse();
    hold.close();
    assertThat(other.stands()).isTrue();
    other.close();
    assertThat(files().facts(lock).exists()).isFalse();
  }
}
