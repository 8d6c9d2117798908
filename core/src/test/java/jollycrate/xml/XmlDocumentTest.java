package jollycrate.xml;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Positions are exact, so that an edit changes nothing else. */
class XmlDocumentTest {
  private static final String TEXT =
      """
      <?xml version="1.0"?>
      <!-- <Fake/> -->
      <!DOCTYPE Context [ <!ELEMENT Context ANY> ]>
      <Context a='1 > 0' path="/x">
        <![CDATA[<Fake/>]]>
        <p:Resource name="jdbc/x"/>
        <Empty></Empty>&amp;&#228;
      </Context>
      """;

  @Test
  void elementsAndAttributesHaveTheirPlaces() {
    XmlDocument document = XmlDocument.parse("context.xml", TEXT);
    XmlElement root = document.root();
    assertThat(root.name()).isEqualTo("Context");
    assertThat(root.children()).extracting(XmlElement::name).containsExactly("Resource", "Empty");
    XmlElement resource = root.children().get(0);
    assertThat(TEXT.substring(resource.start(), resource.end()))
        .isEqualTo("<p:Resource name=\"jdbc/x\"/>");
    assertThat(document.lineOf(resource.start())).isEqualTo(6);
    assertThat(resource.selfClosed()).isTrue();
    assertThat(root.children().get(1).selfClosed()).isFalse();
    assertThat(root.value("a", "")).isEqualTo("1 > 0");
    assertThat(root.text()).isEqualTo("<Fake/>\n  \n  &ä");
  }

  @Test
  void anAttributeIsSetAndNothingElseOfItsTagDiffers() {
    String text = "<a  note=' port=\"1\"'\n   port = '2'/>";
    XmlDocument document = XmlDocument.parse("a.xml", text);
    assertThat(document.with(List.of(document.setting(document.root(), "port", "<3>"))).text())
        .isEqualTo("<a  note=' port=\"1\"'\n   port = '&lt;3&gt;'/>");
    assertThat(document.with(List.of(document.setting(document.root(), "word", "x"))).text())
        .isEqualTo("<a  note=' port=\"1\"'\n   port = '2' word=\"x\"/>");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "<a>\r\n\t<b/>\r\n</a>",
        "<a><b/></a>",
        "<a>\n  <b>\n  </b> <!-- end -->\n</a>\n",
        "<a>\n</a>",
        "<a></a>"
      })
  void whatIsAppendedIsTakenOutByteForByte(String text) {
    XmlDocument document = XmlDocument.parse("a.xml", text);
    String longer =
        document.with(List.of(document.appending(document.root(), List.of("<c>", "</c>")))).text();
    XmlDocument again = XmlDocument.parse("a.xml", longer);
    XmlElement added = again.root().child("c").orElseThrow();
    assertThat(again.with(List.of(again.removing(added))).text()).isEqualTo(text);
  }

  @Test
  void aSpliceLeavesTheRestAsItWas() {
    XmlDocument document = XmlDocument.parse("context.xml", TEXT);
    XmlElement empty = document.root().children("Empty").get(0);
    String edited =
        document
            .with(
                List.of(
                    new Splice(empty.start(), empty.tagEnd(), "<Full>"),
                    new Splice(empty.contentEnd(), empty.end(), "</Full>"),
                    Splice.insert(document.root().contentEnd(), "<New/>")))
            .text();
    assertThat(edited)
        .isEqualTo(
            TEXT.replace("<Empty></Empty>", "<Full></Full>")
                .replace("</Context>", "<New/></Context>"));
  }

  @Test
  void theDeclaredEncodingIsObeyed() {
    byte[] latin =
        "<?xml version='1.0' encoding='ISO-8859-1'?><a>ä</a>".getBytes(StandardCharsets.ISO_8859_1);
    assertThat(XmlDocument.parse("a.xml", latin).root().text()).isEqualTo("ä");
  }

  @ParameterizedTest
  @ValueSource(strings = {"p&${user.name}<\"'ü", "plain", "\u0001x", "日本"})
  void anEscapedValueReadsTheSame(String value) {
    String printable = value.replace("\u0001", "\t");
    String xml = "<a b=\"" + XmlDocument.escape(printable) + "\"/>";
    assertThat(xml).isASCII();
    assertThat(XmlDocument.parse("a.xml", xml).root().value("b", "")).isEqualTo(printable);
  }

  @ParameterizedTest
  @ValueSource(strings = {"<a>", "<a></b>", "", "<a b=c/>", "<a>&x;</a>"})
  void whatIsNotWellFormedIsRefusedWithItsPlace(String text) {
    XmlException failure =
        catchThrowableOfType(XmlException.class, () -> XmlDocument.parse("a.xml", text));
    assertThat(failure).isNotNull();
    assertThat(failure.document()).isEqualTo("a.xml");
    assertThat(failure.line()).isPositive();
  }

  /** Each of these once hung for ever, or ended as a fault of ours. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "<!DOCTYPE a [<!ENTITY x \"y'><a/>",
        "<!DOCTYPE a SYSTEM 'x><a/>",
        "<!DOCTYPE a [ <!-- ' --> ]><a/>",
        "<!DOCTYPE a [ <?p ' ?> <!ENTITY % q \"'\"> ]><a b='>'/>",
        "<a>&#x110000;</a>",
        "<a>words and more words <b>x</b> and &amp; then &#0; more</a>",
        "<a>words and more words <b>x</b> and &amp; then &#x110000; more</a>",
        "<a>&#xD800;</a>",
        "<a b='&#0;'/>",
        "<?p ' ?><a/><!-- \" -->"
      })
  void oddDocumentsAreReadOrRefused(String text) {
    try {
      assertThat(XmlDocument.parse("a.xml", text).root().name()).isEqualTo("a");
    } catch (XmlException refused) {
      assertThat(refused.line()).isPositive();
    }
  }

  @Test
  void entitiesOfADocumentTypeAreNeverResolved() {
    String text = "<!DOCTYPE a [<!ENTITY x SYSTEM 'file:/etc/passwd'>]><a>1&x;2</a>";
    assertThat(XmlDocument.parse("a.xml", text).root().text()).isEqualTo("1&x;2");
  }

  @Test
  void depthIsBounded() {
    String deep = "<a>".repeat(2000) + "</a>".repeat(2000);
    assertThat(catchThrowableOfType(XmlException.class, () -> XmlDocument.parse("a", deep)))
        .hasMessageContaining("500");
  }
}
