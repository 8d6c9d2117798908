package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** An artifact that somebody else built, and the admin listener. */
class DeployFileIT {
  @TempDir Path folder;

  @Test
  void byTheServersOwnRuleForFileNames() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      Files.delete(workshop.folder.resolve("jolly.toml"));
      Path war = Wars.empty(folder).entry("index.html", "<p>from outside</p>").write("api#v3.war");
      String told = workshop.ok("deploy", war.toString(), "--undescribed", "--to", "bench");
      assertThat(told).contains("Open http://127.0.0.1:" + workshop.http + "/api/v3");
      assertThat(workshop.page("/api/v3/")).contains("from outside");
      assertThat(workshop.ok("check", "api-v3", "--on", "bench")).contains("Passed: 1 check");
      Path other = Wars.empty(folder).entry("index.html", "<p>other</p>").write("other.war");
      assertThat(
              workshop
                  .ends(
                      4,
                      "deploy",
                      other.toString(),
                      "--undescribed",
                      "--to",
                      "bench",
                      "--path",
                      "/api/v3")
                  .out())
          .contains("/api/v3: 'api-v3' stands at this context path");
      workshop.ok("undeploy", "api-v3", "--from", "bench");
      assertThat(workshop.page("/api/v3/")).startsWith("404");
    }
  }

  @Test
  void fromAMavenRepositoryOnTheAdminPortAndNowhereElse() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      Trace before = workshop.trace();
      Path installed = Files.createDirectories(folder.resolve("local/org/spokes/keys/1.0"));
      Files.copy(
          Wars.empty(folder).entry("index.html", "<p>keys</p>").write("keys.war"),
          installed.resolve("keys-1.0.war"));
      Files.writeString(
          Files.createDirectories(workshop.folder.resolve(".mvn")).resolve("maven.config"),
          "-o\n-Dmaven.repo.local=" + folder.resolve("local"));
      String war = "maven:org.spokes:keys:1.0:war";
      workshop.ok("deploy", war, "--undescribed", "--to", "bench", "--on-admin-port");
      assertThat(workshop.page(workshop.admin, "/keys/")).contains("keys");
      assertThat(workshop.page("/keys/")).startsWith("404");
      workshop.ok("deploy", war, "--undescribed", "--to", "bench");
      assertThat(workshop.page("/keys/")).contains("keys");
      assertThat(workshop.page(workshop.admin, "/keys/")).startsWith("404");
      workshop.ok("undeploy", "keys", "--from", "bench");
      workshop.trace().isAs(before);
    }
  }

  @Test
  void theArtifactsOwnContextFileIsKept() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      Path war =
          Wars.with(folder, Wars.servlet("Answer", "/*"))
              .entry(
                  "META-INF/context.xml",
                  "<?xml version='1.0' encoding='UTF-8'?>\n<!-- ours -->\n<Context path='/x'>\n"
                      + "  <Parameter name='greeting' value='good morning'/>\n</Context>\n")
              .source(
                  "Answer",
                  Wars.servletSource(
                      "Answer",
                      "response.getWriter().print(getServletContext().getInitParameter(\"greeting\"));"))
              .write("shop.war");
      workshop.ok("deploy", war.toString(), "--undescribed", "--to", "bench");
      assertThat(workshop.page("/shop/")).contains("good morning");
      assertThat(workshop.server.resolve("conf/Catalina/localhost/shop.xml"))
          .content()
          .contains("<!-- ours -->");
    }
  }
}
