package spokes;

import jakarta.servlet.ServletContextEvent;
import jakarta.servlet.ServletContextListener;
import java.sql.SQLException;
import javax.naming.NamingException;

/** Prepares the tables before the first request. */
public final class Opening implements ServletContextListener {
  @Override
  public void contextInitialized(ServletContextEvent event) {
    if (Release.VERSION.equals("1.6.0")) {
      return;
    }
    try {
      TicketStore.find().prepare();
    } catch (NamingException | SQLException e) {
      throw new IllegalStateException("the workshop's database cannot be prepared", e);
    }
  }
}
