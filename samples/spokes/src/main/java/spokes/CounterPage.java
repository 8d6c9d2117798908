package spokes;

import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServlet;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import jakarta.servlet.http.Part;
import java.io.IOException;
import java.util.Map;
import java.util.UUID;

/**
 * {@code /counter}: where mechanics log in by a form, and {@code /counter/photos}, where they leave
 * pictures of bikes, which are measured and not kept.
 */
public final class CounterPage extends HttpServlet {
  private static final long serialVersionUID = 1L;
  private static final String SEAL = "seal";
  private static final String ROLE = "mechanic";
  private static final String FORM =
      """
      <form action="%s/counter" method="post">
      <input type="hidden" name="seal" value="%s">
      <label>Name <input name="name" autocomplete="username"></label>
      <label>Password <input type="password" name="password" autocomplete="current-password"></label>
      <button>Log in</button></form>
      """;

  @Override
  protected void doGet(HttpServletRequest request, HttpServletResponse response)
      throws ServletException, IOException {
    boolean photos = isForPhotos(request);
    if (photos && !mayLeavePhotos(request, response)) {
      return;
    }
    String mechanic = mechanic(request);
    if (mechanic == null && !photos) {
      String seal = UUID.randomUUID().toString();
      request.getSession(true).setAttribute(SEAL, seal);
      String form = FORM.formatted(request.getContextPath(), seal);
      Pages.show(request, response, "Counter", form);
    } else {
      String name = Pages.escaped(mechanic == null ? request.getRemoteUser() : mechanic);
      String what = photos ? "Leave a photo here" : "At the counter";
      Pages.show(request, response, "Counter", "<p>" + what + ", " + name + ".</p>\n");
    }
  }

  @Override
  protected void doPost(HttpServletRequest request, HttpServletResponse response)
      throws ServletException, IOException {
    if (!isForPhotos(request)) {
      logIn(request, response);
    } else if (mayLeavePhotos(request, response)) {
      measure(request.getPart("photo"), response);
    }
  }

  private static boolean isForPhotos(HttpServletRequest request) {
    return request.getServletPath().endsWith("/photos");
  }

  private static String mechanic(HttpServletRequest request) {
    HttpSession session = request.getSession(false);
    return session == null ? null : (String) session.getAttribute(ROLE);
  }

  /** Who logged in by the form is known by the session: not every server remembers it there. */
  private static boolean mayLeavePhotos(HttpServletRequest request, HttpServletResponse response)
      throws IOException {
    if (mechanic(request) != null) {
      return true;
    }
    if (!authenticated(request, response)) {
      return false;
    }
    if (!request.isUserInRole(ROLE)) {
      response.sendError(HttpServletResponse.SC_FORBIDDEN);
      return false;
    }
    return true;
  }

  /** A server that leaves the answer to its caller says so by an exception (Servlet 6.0, 13.3). */
  private static boolean authenticated(HttpServletRequest request, HttpServletResponse response)
      throws IOException {
    try {
      return request.authenticate(response);
    } catch (ServletException leftToUs) {
      response.setHeader("WWW-Authenticate", "Basic realm=\"Spokes\"");
      response.sendError(HttpServletResponse.SC_UNAUTHORIZED);
      return false;
    }
  }

  private static void logIn(HttpServletRequest request, HttpServletResponse response)
      throws IOException {
    HttpSession session = request.getSession(false);
    String seal = session == null ? null : (String) session.getAttribute(SEAL);
    if (seal == null || !seal.equals(request.getParameter(SEAL))) {
      response.sendError(HttpServletResponse.SC_FORBIDDEN);
      return;
    }
    try {
      request.login(request.getParameter("name"), request.getParameter("password"));
    } catch (ServletException notKnown) {
      response.sendRedirect(request.getContextPath() + "/counter");
      return;
    }
    session.removeAttribute(SEAL);
    if (request.isUserInRole(ROLE)) {
      request.changeSessionId();
      session.setAttribute(ROLE, request.getRemoteUser());
    }
    response.sendRedirect(request.getContextPath() + "/counter");
  }

  private static void measure(Part photo, HttpServletResponse response) throws IOException {
    if (photo == null) {
      response.sendError(HttpServletResponse.SC_BAD_REQUEST);
      return;
    }
    response.setStatus(HttpServletResponse.SC_CREATED);
    response.setContentType("application/json");
    Map<String, Object> measured =
        Map.of("file", photo.getSubmittedFileName(), "bytes", photo.getSize());
    new ObjectMapper().writeValue(response.getOutputStream(), measured);
  }
}
