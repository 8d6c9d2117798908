package jollycrate.probe;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UnsupportedEncodingException;
import java.lang.reflect.InvocationTargetException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Map;
import javax.management.Attribute;
import javax.management.InstanceNotFoundException;
import javax.management.JMException;
import javax.management.MBeanServerConnection;
import javax.management.ObjectName;
import javax.management.remote.JMXConnector;
import javax.management.remote.JMXConnectorFactory;
import javax.management.remote.JMXServiceURL;

/**
 * Asks a Java process of its machine for MBeans by attaching to it, with the Java that the process
 * itself runs on; that opens a port for the machine's users in it, which stays open until it ends.
 *
 * <p>Argument: process id. Standard input: for each question a line with a pattern of names and
 * attributes, TAB between them. Standard output: for each MBean a line {@code bean TAB domain}, for
 * each property of its name {@code key TAB name TAB value}, for each attribute {@code value TAB
 * name TAB value}, and {@code end}; or {@code no TAB reason}. Names and values are escaped as in a
 * URL.
 */
public final class BeansProbe {
  private BeansProbe() {}

  /** Runs the probe; exit code 0 in every case that was told on standard output. */
  public static void main(String[] args) throws IOException {
    BufferedReader in =
        new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
    StringBuilder told = new StringBuilder();
    try {
      tell(args[0], in, told);
      told.append("end\n");
    } catch (ReflectiveOperationException e) {
      Throwable why = e instanceof InvocationTargetException ? e.getCause() : e;
      told.setLength(0);
      told.append("no\t").append(escaped(String.valueOf(why))).append('\n');
    } catch (IOException | JMException e) {
      told.setLength(0);
      told.append("no\t").append(escaped(String.valueOf(e))).append('\n');
    }
    System.out.print(told);
  }

  /** By reflection: where a Java comes without its module for that, this is told as well. */
  private static void tell(String pid, BufferedReader in, StringBuilder told)
      throws ReflectiveOperationException, IOException, JMException {
    Class<?> type = Class.forName("com.sun.tools.attach.VirtualMachine");
    Object machine = type.getMethod("attach", String.class).invoke(null, pid);
    try {
      String address = (String) type.getMethod("startLocalManagementAgent").invoke(machine);
      try (JMXConnector connector = JMXConnectorFactory.connect(new JMXServiceURL(address))) {
        MBeanServerConnection server = connector.getMBeanServerConnection();
        for (String line = in.readLine(); line != null; line = in.readLine()) {
          String[] words = line.split("\t");
          String[] attributes = Arrays.copyOfRange(words, 1, words.length);
          for (ObjectName name : server.queryNames(new ObjectName(words[0]), null)) {
            tell(server, name, attributes, told);
          }
        }
      }
    } finally {
      type.getMethod("detach").invoke(machine);
    }
  }

  /** What is gone by now is not told of. */
  private static void tell(
      MBeanServerConnection server, ObjectName name, String[] attributes, StringBuilder told)
      throws IOException, JMException {
    StringBuilder bean = new StringBuilder("bean\t" + escaped(name.getDomain()) + "\n");
    for (Map.Entry<String, String> key : name.getKeyPropertyList().entrySet()) {
      line(bean, "key", key.getKey(), key.getValue());
    }
    try {
      for (Attribute found : server.getAttributes(name, attributes).asList()) {
        line(bean, "value", found.getName(), String.valueOf(found.getValue()));
      }
      told.append(bean);
    } catch (InstanceNotFoundException gone) {
      return;
    }
  }

  private static void line(StringBuilder told, String what, String name, String value)
      throws UnsupportedEncodingException {
    told.append(what).append('\t').append(escaped(name)).append('\t').append(escaped(value));
    told.append('\n');
  }

  private static String escaped(String text) throws UnsupportedEncodingException {
    return URLEncoder.encode(text, "UTF-8");
  }
}
