package jollycrate.glassfish;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.file.Digests;
import jollycrate.host.Launch;
import jollycrate.hosting.Arguments;
import jollycrate.hosting.HostedLogs;
import jollycrate.server.KindProcesses;
import jollycrate.server.Server;
import jollycrate.server.Stock;

/** The one process of a GlassFish. */
final class GlassfishProcesses implements KindProcesses {
  private static final String OURS = "jollycrate.insideglassfish.Start";
  private static final String THEIRS = "com.sun.enterprise.glassfish.bootstrap.ASMain";
  private static final String FOLDER = "-Djolly.folder=";
  private static final String ROOT = "-Dcom.sun.aas.instanceRoot=";
  private static final String HOME = "-Dcom.sun.aas.installRoot=";

  private static final Duration ENDS_WITHIN = Duration.ofSeconds(15);

  /** As its own configuration tells its own launcher. */
  private static final List<String> OPENED =
      List.of(
          "java.base/java.io",
          "java.base/java.lang",
          "java.base/java.util",
          "java.base/sun.nio.fs",
          "java.base/sun.net.www.protocol.jrt",
          "java.base/jdk.internal.vm.annotation",
          "java.naming/javax.naming.spi",
          "java.rmi/sun.rmi.transport",
          "jdk.management/com.sun.management.internal");

  private static final List<String> EXPORTED =
      List.of("java.naming/com.sun.jndi.ldap", "java.base/jdk.internal.vm.annotation");

  private static final List<String> SETTINGS =
      List.of(
          "-Djava.awt.headless=true",
          "-Djdk.corba.allowOutputStreamSubclass=true",
          "-Djdk.tls.rejectClientInitiatedRenegotiation=true",
          "-Djdk.attach.allowAttachSelf=true",
          "-Djavax.xml.accessExternalSchema=all",
          "-Djavax.management.builder.initial"
              + "=com.sun.enterprise.v3.admin.AppServerMBeanServerBuilder",
          "-Dcom.sun.enterprise.security.httpsOutboundKeyAlias=s1as",
          "-Dcom.sun.enterprise.config.config_environment_factory_class"
              + "=com.sun.enterprise.config.serverbeans.AppserverConfigEnvironmentFactory",
          "-DANTLR_USE_DIRECT_CLASS_LOADING=true",
          "-Dorg.glassfish.gmbal.no.multipleUpperBoundsException=true",
          "-Dcom.ctc.wstx.returnNullForDefaultNamespace=true",
          "-Dfelix.fileinstall.disableConfigSave=true",
          "-Dfelix.fileinstall.log.level=1");

  /** What the server's root holds that is read before it runs. */
  private static final Map<String, String> FILES =
      Map.of(
          "java.security.policy", "server.policy",
          "java.security.auth.login.config", "login.conf",
          "javax.net.ssl.keyStore", "keystore.jks",
          "javax.net.ssl.trustStore", "cacerts.jks");

  @Override
  public Launch launch(Stock stock) {
    Server server = stock.server();
    Path home = server.installation().resolve("glassfish");
    Path base = server.folder();
    Path root = base.resolve(GlassfishFiles.STATE);
    List<String> command = server.javaCommand();
    command.add("-Djava.io.tmpdir=" + base.resolve("tmp"));
    command.add("-Dfile.encoding=UTF-8");
    command.add("-Djolly.token=" + Launch.TOKEN);
    command.add(FOLDER + base);
    command.add("-Djolly.address=" + server.ports().address());
    command.add("-Djolly.port=" + server.ports().http());
    command.add(ROOT + root);
    command.add(HOME + home);
    command.addAll(SETTINGS);
    FILES.entrySet().stream()
        .sorted(Map.Entry.comparingByKey())
        .forEach(
            file ->
                command.add(
                    "-D" + file.getKey() + "=" + root.resolve("config").resolve(file.getValue())));
    OPENED.forEach(name -> command.add("--add-opens=" + name + "=ALL-UNNAMED"));
    EXPORTED.forEach(name -> command.add("--add-exports=" + name + "=ALL-UNNAMED"));
    command.add("-cp");
    command.add(home.resolve("modules/glassfish.jar") + ":" + GlassfishFiles.start(server));
    command.add(OURS);
    command.add(base.toString());
    command.add(root.toString());
    command.add(GlassfishFiles.shipped(server).toString());
    command.addAll(List.of("-upgrade", "false", "-read-stdin", "false", "-verbose", "false"));
    command.addAll(List.of("-domainname", "jolly", "-domaindir", root.toString()));
    command.addAll(List.of("-instancename", "server", "-type", "DAS"));
    return new Launch(
        command,
        base,
        stock.owned(),
        server.runtime().environment(),
        server.runtime().declared(),
        server.log(HostedLogs.USUAL),
        Stream.of(
                GlassfishFiles.domain(server),
                GlassfishFiles.logging(server),
                GlassfishFiles.users(server))
            .map(file -> Digests.of(stock.texts().getOrDefault(file, new byte[0])))
            .toList());
  }

  /** It lets no request come to its end, so what takes longer hangs. */
  @Override
  public Duration endsWithin(Stock stock) {
    return ENDS_WITHIN;
  }

  @Override
  public boolean isOne(List<String> arguments) {
    return arguments.contains(OURS) || arguments.contains(THEIRS);
  }

  @Override
  public Optional<Path> folder(List<String> arguments) {
    return Stream.of(FOLDER, ROOT)
        .flatMap(beginning -> Arguments.paths(arguments, beginning))
        .findFirst();
  }

  @Override
  public Optional<Path> installation(List<String> arguments) {
    return Arguments.paths(arguments, HOME).map(Path::getParent).findFirst();
  }
}
