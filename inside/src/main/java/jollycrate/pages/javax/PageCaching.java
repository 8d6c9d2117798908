package jollycrate.pages.javax;

import java.io.IOException;
import javax.servlet.Filter;
import javax.servlet.FilterChain;
import javax.servlet.FilterConfig;
import javax.servlet.ServletException;
import javax.servlet.ServletRequest;
import javax.servlet.ServletResponse;
import javax.servlet.http.HttpServletRequest;
import javax.servlet.http.HttpServletResponse;
import javax.servlet.http.HttpServletResponseWrapper;
import jollycrate.pages.Freshness;

/** Tells browsers how long to keep pages and assets, on servers of the javax namespace. */
public final class PageCaching implements Filter {
  private String settings = "";

  @Override
  public void init(FilterConfig config) {
    String given = config.getInitParameter("settings");
    settings = given == null ? "" : given;
  }

  @Override
  public void doFilter(ServletRequest request, ServletResponse response, FilterChain chain)
      throws IOException, ServletException {
    HttpServletRequest asked = (HttpServletRequest) request;
    String path = asked.getRequestURI().substring(asked.getContextPath().length());
    String header = Freshness.of(path, settings);
    if (!header.isEmpty()) {
      HttpServletResponse answer = (HttpServletResponse) response;
      answer.setHeader("Cache-Control", header);
      chain.doFilter(request, new NoErrorKept(answer));
    } else {
      chain.doFilter(request, response);
    }
  }

  /** An error may be gone a second later. */
  private static final class NoErrorKept extends HttpServletResponseWrapper {
    NoErrorKept(HttpServletResponse answer) {
      super(answer);
    }

    @Override
    public void sendError(int status) throws IOException {
      setHeader("Cache-Control", Freshness.ASK);
      super.sendError(status);
    }

    @Override
    public void sendError(int status, String message) throws IOException {
      setHeader("Cache-Control", Freshness.ASK);
      super.sendError(status, message);
    }
  }

  @Override
  public void destroy() {}
}
