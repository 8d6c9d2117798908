package spokes;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;

/** The frame that every page stands in. */
final class Pages {
  private Pages() {}

  static void show(
      HttpServletRequest request, HttpServletResponse response, String title, String body)
      throws IOException {
    response.setContentType("text/html;charset=UTF-8");
    String base = request.getContextPath();
    response
        .getWriter()
        .print(
            """
            <!DOCTYPE html>
            <html lang="en">
            <head><meta charset="utf-8"><title>%1$s - Spokes</title>
            <link rel="stylesheet" href="%2$s/style.css"></head>
            <body data-base="%2$s">
            <header><img src="%2$s/bike.svg" alt="" width="72"><h1>Spokes</h1>
            <p>neighbourhood bicycle workshop</p></header>
            <main><h2>%1$s</h2>
            %3$s</main>
            <footer>version %4$s</footer>
            <script src="%2$s/desk.js"></script>
            </body></html>
            """
                .formatted(title, base, body, Release.VERSION));
  }

  static String escaped(String text) {
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
  }
}
