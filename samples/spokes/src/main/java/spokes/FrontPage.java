package spokes;

import jakarta.servlet.http.HttpServlet;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;

/** The counter: open tickets, filled in by a script. */
public final class FrontPage extends HttpServlet {
  private static final long serialVersionUID = 1L;

  @Override
  protected void doGet(HttpServletRequest request, HttpServletResponse response)
      throws IOException {
    Pages.show(
        request,
        response,
        "Repair tickets",
        "<table id=\"tickets\"><tr><th>Bike</th><th>Fault</th><th>Mechanic</th></tr></table>\n");
  }
}
