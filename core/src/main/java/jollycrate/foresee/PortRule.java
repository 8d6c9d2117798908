package jollycrate.foresee;

import java.util.ArrayList;
import java.util.List;
import jollycrate.app.Ports;
import jollycrate.server.Stock;

/** Nobody else listens on a port of the server. */
public final class PortRule implements Rule {
  @Override
  public List<Finding> look(Scene scene) {
    return look(scene.stock());
  }

  /** Of any act. */
  public static List<Finding> look(Stock stock) {
    Ports ports = stock.server().ports();
    List<Finding> findings = new ArrayList<>();
    port(stock, ports.http(), "http", findings);
    ports.https().ifPresent(https -> port(stock, https.port(), "https", findings));
    ports.admin().ifPresent(admin -> port(stock, admin, "admin", findings));
    ports.beside().ifPresent(beside -> port(stock, beside, "beside", findings));
    return findings;
  }

  private static void port(Stock stock, int port, String key, List<Finding> findings) {
    stock
        .stranger(port)
        .ifPresent(
            listening ->
                findings.add(
                    Finding.blocker(
                        "port " + port,
                        listening.who() + " listens on the port that '" + key + "' names",
                        "",
                        "End that program, or give the server another '"
                            + key
                            + "' in servers.toml")));
  }
}
