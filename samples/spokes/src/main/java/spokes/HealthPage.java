package spokes;

import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServlet;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.sql.SQLException;
import java.util.Map;
import javax.naming.NamingException;

/** Tells which database this really is. */
public final class HealthPage extends HttpServlet {
  private static final long serialVersionUID = 1L;

  @Override
  protected void doGet(HttpServletRequest request, HttpServletResponse response)
      throws ServletException, IOException {
    try {
      response.setContentType("application/json");
      new ObjectMapper()
          .writeValue(
              response.getOutputStream(),
              Map.of("version", Release.VERSION, "database", TicketStore.find().url()));
    } catch (SQLException | NamingException e) {
      throw new ServletException(e);
    }
  }
}
