package spokes;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServlet;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.sql.SQLException;
import java.util.Map;
import javax.naming.NamingException;

/** {@code /api/tickets}: list, add, change, remove. */
public final class TicketsApi extends HttpServlet {
  private static final long serialVersionUID = 1L;
  private static final ObjectMapper JSON = new ObjectMapper();

  @Override
  protected void service(HttpServletRequest request, HttpServletResponse response)
      throws ServletException, IOException {
    try {
      TicketStore store = TicketStore.find();
      switch (request.getMethod()) {
        case "GET" -> answer(response, 200, store.list());
        case "POST" -> add(store, request, response);
        case "PUT" -> change(store, request, response);
        case "DELETE" -> found(response, store.remove(id(request)));
        default -> response.sendError(405);
      }
    } catch (SQLException | NamingException e) {
      throw new ServletException(e);
    }
  }

  private static void add(
      TicketStore store, HttpServletRequest request, HttpServletResponse response)
      throws IOException, SQLException {
    JsonNode wanted = JSON.readTree(request.getInputStream());
    if (!wanted.hasNonNull("bike") || !wanted.hasNonNull("fault")) {
      answer(response, 400, Map.of("error", "a ticket needs a bike and a fault"));
      return;
    }
    long id =
        store.add(
            wanted.get("bike").asText(),
            wanted.get("fault").asText(),
            wanted.path("mechanic").asText("nobody yet"));
    answer(response, 201, Map.of("id", id));
  }

  private static void change(
      TicketStore store, HttpServletRequest request, HttpServletResponse response)
      throws IOException, SQLException {
    JsonNode wanted = JSON.readTree(request.getInputStream());
    found(response, store.setDone(id(request), wanted.path("done").asBoolean()));
  }

  private static void found(HttpServletResponse response, boolean found) throws IOException {
    answer(response, found ? 200 : 404, Map.of("found", found));
  }

  private static long id(HttpServletRequest request) {
    String path = String.valueOf(request.getPathInfo());
    return path.matches("/\\d{1,18}") ? Long.parseLong(path.substring(1)) : -1;
  }

  private static void answer(HttpServletResponse response, int status, Object body)
      throws IOException {
    response.setStatus(status);
    response.setContentType("application/json");
    JSON.writeValue(response.getOutputStream(), body);
  }
}
