package spokes;

import jakarta.servlet.http.HttpServlet;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.InputStream;

/** Style, script and picture of the pages, from the class path. */
final class Looks extends HttpServlet {
  private static final long serialVersionUID = 1L;

  @Override
  protected void doGet(HttpServletRequest request, HttpServletResponse response)
      throws IOException {
    try (InputStream in = Looks.class.getResourceAsStream(request.getServletPath())) {
      if (in == null) {
        response.sendError(HttpServletResponse.SC_NOT_FOUND);
        return;
      }
      response.setContentType(type(request.getServletPath()));
      in.transferTo(response.getOutputStream());
    }
  }

  private static String type(String path) {
    return switch (path.substring(path.lastIndexOf('.') + 1)) {
      case "css" -> "text/css";
      case "js" -> "text/javascript";
      default -> "image/svg+xml";
    };
  }
}
