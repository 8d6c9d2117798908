package jollycrate.site;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.Proxy;
import java.util.List;
import java.util.function.UnaryOperator;
import jollycrate.host.Host;
import jollycrate.host.HostProcesses;
import jollycrate.host.Ran;
import jollycrate.host.Time;
import jollycrate.site.Examination.Seen;
import jollycrate.site.Examination.Verdict;
import org.junit.jupiter.api.Test;

/** What a machine did not tell is not told to be right. */
class HostExaminationTest {
  private static List<Seen> seen(UnaryOperator<Ran> told) {
    Host here = Host.local();
    HostProcesses processes =
        (HostProcesses)
            Proxy.newProxyInstance(
                HostProcesses.class.getClassLoader(),
                new Class<?>[] {HostProcesses.class},
                (proxy, verb, arguments) -> {
                  Object result = verb.invoke(here.processes(), arguments);
                  return result instanceof Ran ran ? told.apply(ran) : result;
                });
    Host host = new Host("app1", false, here.files(), processes, here.sight(), here.environment());
    return HostExamination.of(host, "rita@app1", Time.system());
  }

  @Test
  void whatIsWholeIsTold() {
    assertThat(seen(ran -> ran))
        .extracting(Seen::what)
        .contains("system", "tools", "disk", "clock", "Java", "log-out");
  }

  @Test
  void whatBreaksOffIsWrong() {
    List<Seen> seen =
        seen(ran -> new Ran(-1, ran.output().substring(0, ran.output().indexOf("cores")), ""));
    assertThat(seen).extracting(Seen::what).containsExactly("log-in", "facts");
    assertThat(seen.get(1).verdict()).isEqualTo(Verdict.WRONG);
  }

  @Test
  void aClockThatIsOffIsDoubtful() {
    List<Seen> seen =
        seen(ran -> new Ran(0, ran.output().replaceAll("(?m)^time\t\\d+", "time\t1000"), ""));
    assertThat(seen)
        .filteredOn(one -> one.what().equals("clock"))
        .extracting(Seen::verdict)
        .containsExactly(Verdict.DOUBTFUL);
  }
}
