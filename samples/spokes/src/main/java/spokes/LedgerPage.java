package spokes;

import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServlet;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.sql.SQLException;
import javax.naming.NamingException;

/** What the owner wants to know; for role {@code owner} only. */
public final class LedgerPage extends HttpServlet {
  private static final long serialVersionUID = 1L;

  @Override
  protected void doGet(HttpServletRequest request, HttpServletResponse response)
      throws ServletException, IOException {
    try {
      long done = TicketStore.find().list().stream().filter(Ticket::done).count();
      String owner = Pages.escaped(request.getUserPrincipal().getName());
      Pages.show(request, response, "Ledger", "<p>" + done + " repairs done, " + owner + ".</p>\n");
    } catch (SQLException | NamingException e) {
      throw new ServletException(e);
    }
  }
}
