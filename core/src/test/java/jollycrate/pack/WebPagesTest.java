package jollycrate.pack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.pages.Freshness;
import jollycrate.pages.Navigation;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Pages find themselves and their settings under any context path, and nothing else is touched. */
class WebPagesTest {
  private static final String BLOCK = "<script type=\"application/json\" id=\"jolly-settings\">";

  @TempDir Path folder;

  private Packed pack(String path, String page, Map<String, Object> settings) throws IOException {
    Project project = new Project(folder).file("web/index.html", page);
    for (String packed : List.of("x", "a", "a.png", "b.png", "c", "desktop", "logo.svg")) {
      project.file("web/" + packed, packed);
    }
    return project.at(path, settings, Optional.empty()).pack(Shape.WEB);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      textBlock =
          """
          <base href="/">                        | <base href="/desk/">
          <base href="/old/">                    | <base href="/desk/">
          <base href="/old/"><img src="/old/a">  | <base href="/desk/"><img src="/desk/a">
          <base href="/old/"><img src="/a">      | <base href="/desk/"><img src="/desk/a">
          <base href="./">                       | <base href="./">
          <a href="/x">                          | <a href="/desk/x">
          <a href='/x'>                          | <a href='/desk/x'>
          <a href=/x>                            | <a href=/desk/x>
          <A HREF="/x">                          | <A HREF="/desk/x">
          <a href="/">                           | <a href="/desk/">
          <a href="/desk/x">                     | <a href="/desk/x">
          <a href="/desktop">                    | <a href="/desk/desktop">
          <a href="//cdn.example/x">             | <a href="//cdn.example/x">
          <a href="x/y">                         | <a href="x/y">
          <a href="https://a.example/x">         | <a href="https://a.example/x">
          <img srcset="/a.png 1x, /b.png 2x">    | <img srcset="/desk/a.png 1x, /desk/b.png 2x">
          <form action="/guestbook/api">         | <form action="/guestbook/api">
          <a href="/tickets">                    | <a href="/tickets">
          <a href="/x?y=1#z">                    | <a href="/desk/x?y=1#z">
          <p style="background:url(/a.png)">     | <p style="background:url(/desk/a.png)">
          <style>a{b:url('/c')}</style>          | <style>a{b:url('/desk/c')}</style>
          <style>/* url(/c) */</style>           | <style>/* url(/c) */</style>
          <script>fetch("/api")</script>         | <script>fetch("/api")</script>
          <!-- <a href="/x"> -->                 | <!-- <a href="/x"> -->
          <p title="/x">/x</p>                   | <p title="/x">/x</p>
          """)
  void pathsFromTheRootBeginWithTheContextPath(String page, String expected) throws IOException {
    Packed packed = pack("/desk", "<!doctype html>\n" + page + "\n", Map.of());
    assertThat(Project.text(packed, "index.html")).isEqualTo("<!doctype html>\n" + expected + "\n");
    boolean told =
        packed.remarks().stream().anyMatch(remark -> remark.text().contains("rewritten"));
    assertThat(told).isEqualTo(!page.equals(expected));
  }

  @Test
  void anAssetThatIsAskedForAndNotPackedIsWarnedOf() throws IOException {
    Packed packed = pack("/desk", "<script src='/app.js'></script><a href='/tickets'>", Map.of());
    assertThat(packed.remarks())
        .filteredOn(Packed.Remark::warning)
        .singleElement()
        .extracting(Packed.Remark::details)
        .isEqualTo(List.of("index.html:1: /app.js"));
  }

  @Test
  void pathsOfScriptsAreWarnedOfAndStay() throws IOException {
    String script =
        "<script>\nfetch('/api/tickets'); show(\"/logo.svg\", '/desk/own', '/words');\n</script>";
    Packed packed = pack("/desk", script, Map.of());
    assertThat(Project.text(packed, "index.html")).isEqualTo(script);
    assertThat(packed.remarks())
        .filteredOn(Packed.Remark::warning)
        .singleElement()
        .extracting(Packed.Remark::details)
        .isEqualTo(List.of("index.html:2: /api/tickets", "index.html:2: /logo.svg"));
    assertThat(pack("/", script, Map.of()).remarks()).noneMatch(Packed.Remark::warning);
  }

  @Test
  void aFallbackAnswersOnlyTheOpeningOfPages() throws IOException {
    Packed packed =
        new Project(folder)
            .file("web/index.html", "<p>")
            .fallback("index.html")
            .at("/", Map.of(), Optional.empty())
            .pack(Shape.WEB);
    assertThat(Project.text(packed, "WEB-INF/lib/page-caching.jar"))
        .contains("jollycrate.pages.jakarta.Fallback", "<param-value>index.html</param-value>");
    String page = "text/html,*/*";
    assertThat(Navigation.opens("GET", "/tickets/7", "navigate", page)).isTrue();
    assertThat(Navigation.opens("GET", "/tickets/7", null, page)).isTrue();
    assertThat(Navigation.opens("GET", "/tickets/7", "cors", page)).isFalse();
    assertThat(Navigation.opens("GET", "/app.js", "navigate", page)).isFalse();
    assertThat(Navigation.opens("GET", "/api/tickets", null, "application/json")).isFalse();
    assertThat(Navigation.opens("POST", "/tickets", "navigate", page)).isFalse();
  }

  @Test
  void whatWasBuiltForAnotherPathIsBroughtToTheRoot() throws IOException {
    String page = "<base href=\"/old/\"><img src=\"/old/a.png\">";
    assertThat(Project.text(pack("/", page, Map.of()), "index.html"))
        .isEqualTo("<base href=\"/\"><img src=\"/a.png\">");
  }

  @Test
  void atTheRootNothingChanges() throws IOException {
    String page = "<base href=\"/\"><a href=\"/x\">";
    assertThat(Project.text(pack("/", page, Map.of()), "index.html")).isEqualTo(page);
  }

  @Test
  void bytesOfAnyEncodingStay() throws IOException {
    byte[] page = "<p>R\u00e4der \u00df</p><a href=\"/x\">".getBytes(StandardCharsets.ISO_8859_1);
    Packed packed =
        new Project(folder)
            .file("web/index.html", page)
            .file("web/x", "x")
            .at("/r\u00e4der", Map.of(), Optional.empty())
            .pack(Shape.WEB);
    assertThat(new String(Project.content(packed, "index.html"), StandardCharsets.ISO_8859_1))
        .isEqualTo("<p>R\u00e4der \u00df</p><a href=\"/r%C3%A4der/x\">");
  }

  @Test
  void wideTextIsRefusedRatherThanBroken() throws IOException {
    Project project =
        new Project(folder)
            .file("web/index.html", "<a href='/x'>".getBytes(StandardCharsets.UTF_16))
            .at("/desk", Map.of(), Optional.empty());
    assertThatThrownBy(() -> project.pack(Shape.WEB)).hasMessageContaining("Save it as UTF-8");
  }

  @Test
  void settingsCannotBreakOutOfTheirBlock() throws IOException {
    String page = BLOCK + "{}</script><p>stays</p>";
    Packed packed = pack("/", page, Map.of("title", "</script><b>\u00fc&"));
    assertThat(Project.text(packed, "index.html"))
        .isEqualTo(
            BLOCK
                + "{\"title\":\"\\u003c/script\\u003e\\u003cb\\u003e\\u00fc\\u0026\"}"
                + "</script><p>stays</p>");
  }

  @Test
  void anEmptyBlockTakesThemToo() throws IOException {
    Packed packed = pack("/", "<head>" + BLOCK + "</script></head>", Map.of("a", 1));
    assertThat(Project.text(packed, "index.html"))
        .isEqualTo("<head>" + BLOCK + "{\"a\":1}</script></head>");
  }

  @Test
  void withoutAPlaceForThemTheMendIsTold() {
    assertThatThrownBy(() -> pack("/", "<p>no block</p>", Map.of("a", 1)))
        .isInstanceOf(PackException.class)
        .hasMessageContaining("no page has the block")
        .hasMessageContaining("settings-file = \"settings.json\"");
  }

  @Test
  void aSettingsFileKeepsWhatIsNotSaid() throws IOException {
    Packed packed =
        new Project(folder)
            .file("web/index.html", "<p>")
            .file("web/config/settings.json", "{\"api\": \"/dev\", \"debug\": true}")
            .at("/", Map.of("api", "/spokes"), Optional.of("config/settings.json"))
            .pack(Shape.WEB);
    assertThat(Project.text(packed, "config/settings.json"))
        .contains("\"api\" : \"/spokes\"", "\"debug\" : true");
  }

  @Test
  void theCachingFragmentNamesTheSettingsFile() throws IOException {
    Packed packed =
        new Project(folder)
            .file("web/index.html", "<p>")
            .at("/", Map.of(), Optional.of("a&b.json"))
            .pack(Shape.WEB);
    assertThat(Project.names(packed)).contains("WEB-INF/lib/page-caching.jar", "a&b.json");
    assertThat(Project.text(packed, "WEB-INF/lib/page-caching.jar"))
        .contains("<param-value>a&amp;b.json</param-value>")
        .contains("jollycrate.pages.jakarta.PageCaching");
  }

  @ParameterizedTest
  @CsvSource({
    "/, no-cache",
    "/index.html, no-cache",
    "/tickets/7, no-cache",
    "/settings.json, no-cache",
    "/logo.svg, ''",
    "/my-component.js, ''",
    "/vendor.min.js, ''",
    "/app-3f9a1c2b.js, long",
    "/app.3f9a1c2b.css, long",
    "/assets/index-BxK3d9aQ.js, long",
    "/assets/index-BxK3d9aQ.js.map, long",
    "/page-3f9a1c2b.html, no-cache"
  })
  void namesTellHowLongToKeep(String path, String expected) {
    assertThat(Freshness.of(path, "settings.json"))
        .isEqualTo(expected.equals("long") ? Freshness.LONG : expected);
  }
}
