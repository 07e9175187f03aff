package oakbasket.server.mail;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.StringReader;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javax.swing.text.MutableAttributeSet;
import javax.swing.text.html.HTML;
import javax.swing.text.html.HTMLEditorKit;
import javax.swing.text.html.parser.ParserDelegator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A letter as HTML says what it says as text, and nothing that somebody typed becomes HTML. */
class HtmlPartTest {

    private record Read(List<String> tags, List<String> links, String text) {
    }

    /** Read by the parser that comes with Java, as any program would. */
    private static Read read(String html) throws Exception {
        Read read = new Read(new ArrayList<>(), new ArrayList<>(), "");
        StringBuilder text = new StringBuilder();
        new ParserDelegator().parse(new StringReader(html), new HTMLEditorKit.ParserCallback() {
            @Override
            public void handleStartTag(HTML.Tag tag, MutableAttributeSet attributes, int at) {
                read.tags().add(tag.toString());
                if (tag == HTML.Tag.A) {
                    read.links().add(String.valueOf(attributes.getAttribute(HTML.Attribute.HREF)));
                }
            }

            @Override
            public void handleText(char[] data, int at) {
                text.append(data).append('\n');
            }
        }, true);
        return new Read(read.tags(), read.links(), text.toString());
    }

    @Test
    void paragraphsListsAndLinksStayWhatTheyAre() throws Exception {
        Read read = read(HtmlPart.of("Dear Ada,\n\nStill missing:\n  - Map\n  - Consent (1 of 2)\nPlease send it here:\nhttps://oak.example.org/b/winter/abc_-123\n\n-- \nThe office\n01632 960000\n", Locale.ENGLISH, ""));
        assertThat(read.tags()).containsSubsequence("p", "p", "ul", "li", "li", "p", "a", "p");
        assertThat(read.links()).containsExactly("https://oak.example.org/b/winter/abc_-123");
        assertThat(read.text().lines()).containsExactly("Dear Ada,", "Still missing:", "Map", "Consent (1 of 2)", "Please send it here:", "https://oak.example.org/b/winter/abc_-123", "--", "The office", "01632 960000");
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', value = {"see https://a.example.org/x. | https://a.example.org/x", "(https://a.example.org/x) | https://a.example.org/x", "https://a.example.org/?a=1&b=2 | https://a.example.org/?a=1&b=2",
        "javascript:alert(1) | none", "https://a.example.org/\"onclick=\"x | https://a.example.org/", "<https://a.example.org/x> | https://a.example.org/x"})
    void aLinkEndsWhereItEnds(String line, String link) throws Exception {
        assertThat(read(HtmlPart.of(line, Locale.ENGLISH, "")).links()).isEqualTo(link.equals("none") ? List.of() : List.of(link));
    }

    @Test
    void nothingTypedBecomesHtml() throws Exception {
        String evil = "<script>alert(1)</script><img src=x onerror=alert(1)> &lt;b&gt; \"'</p></body>";
        Read read = read(HtmlPart.of("Dear " + evil + ",\n\n- " + evil, Locale.ENGLISH, ""));
        assertThat(read.tags()).doesNotContain("script", "img", "b").containsOnly("html", "head", "body", "p", "ul", "li");
        assertThat(read.text()).contains(evil);
    }
}
