package jollycrate.check;

import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import jollycrate.app.Ask;
import jollycrate.json.Json;
import org.apache.hc.client5.http.entity.UrlEncodedFormEntity;
import org.apache.hc.client5.http.entity.mime.HttpMultipartMode;
import org.apache.hc.client5.http.entity.mime.MultipartEntityBuilder;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.HttpEntity;
import org.apache.hc.core5.http.NameValuePair;
import org.apache.hc.core5.http.io.entity.StringEntity;
import org.apache.hc.core5.http.message.BasicNameValuePair;

/** What is sent behind the headers, as it goes over the line. */
final class SentBody {
  private static final ContentType TEXT = ContentType.create("text/plain", StandardCharsets.UTF_8);

  private SentBody() {}

  static HttpEntity of(Ask.Sent sent) {
    if (sent.json().isPresent()) {
      return new StringEntity(Json.line(sent.json().get()), ContentType.APPLICATION_JSON);
    }
    if (sent.uploads().isEmpty()) {
      List<NameValuePair> fields =
          sent.fields().entrySet().stream()
              .<NameValuePair>map(one -> new BasicNameValuePair(one.getKey(), one.getValue()))
              .toList();
      return new UrlEncodedFormEntity(fields, StandardCharsets.UTF_8);
    }
    return parts(sent);
  }

  private static HttpEntity parts(Ask.Sent sent) {
    MultipartEntityBuilder parts = MultipartEntityBuilder.create();
    parts.setMode(HttpMultipartMode.EXTENDED);
    for (Map.Entry<String, String> field : sent.fields().entrySet()) {
      parts.addTextBody(field.getKey(), field.getValue(), TEXT);
    }
    for (Ask.Upload upload : sent.uploads()) {
      parts.addBinaryBody(
          upload.field(),
          Base64.getDecoder().decode(upload.base64()),
          ContentType.APPLICATION_OCTET_STREAM,
          upload.file());
    }
    return parts.build();
  }
}
