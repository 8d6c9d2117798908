package jollycrate.insidejetty;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import java.io.PrintWriter;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.List;
import java.util.logging.Logger;
import javax.sql.DataSource;
import org.eclipse.jetty.util.component.AbstractLifeCycle;

/**
 * Pooled connections to one database, opened when the first is asked for and closed with the
 * application. A server that is stopped at once, or a database that is not there, keeps nobody from
 * starting.
 */
public final class Connections extends AbstractLifeCycle implements DataSource {
  private final HikariConfig config = new HikariConfig();
  private HikariDataSource pool = new HikariDataSource();

  /**
   * Connections that a driver opens.
   *
   * @param name of the pool, as management tools show it
   * @param driver class of the JDBC driver
   */
  public Connections(String name, String driver, String url) {
    config.setPoolName(name);
    config.setDriverClassName(driver);
    config.setJdbcUrl(url);
    config.setMinimumIdle(0);
    config.setRegisterMbeans(true);
  }

  /** User of the database. */
  public void setUser(String user) {
    config.setUsername(user);
  }

  /** Password of that user. */
  public void setPassword(String password) {
    config.setPassword(password);
  }

  /** How many connections may be open at once. */
  public void setMost(int connections) {
    config.setMaximumPoolSize(connections);
  }

  /** How long to wait for a free one. */
  public void setPatience(long millis) {
    config.setConnectionTimeout(millis);
  }

  @Override
  protected void doStart() {
    pool = new HikariDataSource();
    config.copyStateTo(pool);
  }

  /** A driver that stays registered would keep its classes, and its files open. */
  @Override
  protected void doStop() throws SQLException {
    pool.close();
    List<Driver> ours =
        DriverManager.drivers()
            .filter(driver -> driver.getClass().getClassLoader() == getClass().getClassLoader())
            .toList();
    for (Driver driver : ours) {
      DriverManager.deregisterDriver(driver);
    }
  }

  @Override
  public Connection getConnection() throws SQLException {
    return pool.getConnection();
  }

  @Override
  public Connection getConnection(String user, String password) throws SQLException {
    return pool.getConnection(user, password);
  }

  @Override
  public PrintWriter getLogWriter() throws SQLException {
    return pool.getLogWriter();
  }

  @Override
  public void setLogWriter(PrintWriter out) throws SQLException {
    pool.setLogWriter(out);
  }

  @Override
  public void setLoginTimeout(int seconds) throws SQLException {
    pool.setLoginTimeout(seconds);
  }

  @Override
  public int getLoginTimeout() throws SQLException {
    return pool.getLoginTimeout();
  }

  @Override
  public Logger getParentLogger() {
    return Logger.getLogger(config.getPoolName());
  }

  @Override
  public <T> T unwrap(Class<T> type) throws SQLException {
    return type.isInstance(this) ? type.cast(this) : pool.unwrap(type);
  }

  @Override
  public boolean isWrapperFor(Class<?> type) throws SQLException {
    return type.isInstance(this) || pool.isWrapperFor(type);
  }
}
