package jollycrate.host;

import com.sun.tools.attach.AttachNotSupportedException;
import com.sun.tools.attach.VirtualMachine;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import javax.management.AttributeList;
import javax.management.InstanceNotFoundException;
import javax.management.JMException;
import javax.management.MBeanServerConnection;
import javax.management.ObjectName;
import javax.management.remote.JMXConnector;
import javax.management.remote.JMXConnectorFactory;
import javax.management.remote.JMXServiceURL;

/**
 * Asks a Java process of this machine by attaching to it. That opens a port for this machine's
 * users in it, which stays open until it ends.
 */
final class LocalJmx {
  private static final Duration LIMIT = Duration.ofSeconds(10);

  private LocalJmx() {}

  /** A process that hangs does not answer; then nothing is known. */
  static Fact<List<Bean>> ask(long pid, List<Question> questions) {
    FutureTask<List<Bean>> asking = new FutureTask<>(() -> answers(pid, questions));
    Thread thread = new Thread(asking, "ask");
    thread.setDaemon(true);
    thread.start();
    try {
      return Fact.known(asking.get(LIMIT.toMillis(), TimeUnit.MILLISECONDS));
    } catch (ExecutionException e) {
      return Fact.unknown("process " + pid + " cannot be asked: " + e.getCause().getMessage());
    } catch (TimeoutException e) {
      return Fact.unknown("process " + pid + " did not answer within " + LIMIT.toSeconds() + " s");
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return Fact.unknown("asking process " + pid + " was interrupted");
    }
  }

  private static List<Bean> answers(long pid, List<Question> questions)
      throws IOException, AttachNotSupportedException, JMException {
    VirtualMachine machine = VirtualMachine.attach(String.valueOf(pid));
    try (JMXConnector connector =
        JMXConnectorFactory.connect(new JMXServiceURL(machine.startLocalManagementAgent()))) {
      MBeanServerConnection server = connector.getMBeanServerConnection();
      List<Bean> beans = new ArrayList<>();
      for (Question question : questions) {
        for (ObjectName name : server.queryNames(new ObjectName(question.pattern()), null)) {
          ask(server, name, question, beans);
        }
      }
      return List.copyOf(beans);
    } finally {
      machine.detach();
    }
  }

  /** What is gone by now is not told of. */
  private static void ask(
      MBeanServerConnection server, ObjectName name, Question question, List<Bean> beans)
      throws IOException, JMException {
    try {
      AttributeList found =
          server.getAttributes(name, question.attributes().toArray(String[]::new));
      Map<String, String> values = new HashMap<>();
      found.asList().forEach(one -> values.put(one.getName(), String.valueOf(one.getValue())));
      beans.add(new Bean(name.getDomain(), Map.copyOf(name.getKeyPropertyList()), values));
    } catch (InstanceNotFoundException gone) {
      return;
    }
  }
}
