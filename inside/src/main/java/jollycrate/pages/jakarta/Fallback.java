package jollycrate.pages.jakarta;

import jakarta.servlet.Filter;
import jakarta.servlet.FilterChain;
import jakarta.servlet.FilterConfig;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletRequest;
import jakarta.servlet.ServletResponse;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import jollycrate.pages.Freshness;
import jollycrate.pages.Navigation;

/**
 * Answers the opening of a path where nothing stands with one page, whose scripts know what to show
 * there; on servers of the jakarta namespace.
 */
public final class Fallback implements Filter {
  private String page = "";

  @Override
  public void init(FilterConfig config) {
    page = "/" + config.getInitParameter("page");
  }

  @Override
  public void doFilter(ServletRequest request, ServletResponse response, FilterChain chain)
      throws IOException, ServletException {
    HttpServletRequest asked = (HttpServletRequest) request;
    String path = asked.getRequestURI().substring(asked.getContextPath().length());
    String within =
        asked.getServletPath() + (asked.getPathInfo() == null ? "" : asked.getPathInfo());
    boolean opens =
        Navigation.opens(
            asked.getMethod(), path, asked.getHeader("Sec-Fetch-Mode"), asked.getHeader("Accept"));
    if (opens && asked.getServletContext().getResource(within) == null) {
      ((HttpServletResponse) response).setHeader("Cache-Control", Freshness.ASK);
      asked.getRequestDispatcher(page).forward(request, response);
    } else {
      chain.doFilter(request, response);
    }
  }

  @Override
  public void destroy() {}
}
