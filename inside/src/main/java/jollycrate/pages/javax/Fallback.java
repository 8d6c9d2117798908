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
import jollycrate.pages.Freshness;
import jollycrate.pages.Navigation;

/**
 * Answers the opening of a path where nothing stands with one page, whose scripts know what to show
 * there; on servers of the javax namespace.
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
