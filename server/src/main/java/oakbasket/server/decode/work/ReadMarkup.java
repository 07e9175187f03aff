package oakbasket.server.decode.work;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Node;
import org.jsoup.nodes.TextNode;
import org.jsoup.parser.Parser;
import org.jsoup.select.NodeTraversor;
import org.jsoup.select.NodeVisitor;

/** Reads the text of a message in HTML (UTF-8), a line for each block, without what nobody sees and without the message that it answers. */
public record ReadMarkup() implements DecodeWork<ReadMarkup.Written> {

    /** What is written. */
    public record Written(String text) {
    }

    private static final String UNSEEN = "script, style, head, title, template, noscript, iframe, object, svg, math";
    /** How common mail programs mark the message that is answered (common practice, no source). */
    private static final String ANSWERED = "blockquote, .gmail_quote, .moz-cite-prefix, .yahoo_quoted, [name=quote]";
    /** From such an element on, everything beside it belongs to that message. */
    private static final String ANSWERED_FROM_HERE = "#divRplyFwdMsg, #appendonsend, .OutlookMessageHeader";
    private static final int LONGEST = 100_000;
    private static final int MOST_BYTES = 4 * LONGEST;
    private static final int DEEPEST = 400;

    @Override
    public Written work(Path file) throws IOException {
        Element body = Jsoup.parse(beginning(file), "", Parser.htmlParser().setMaxDepth(DEEPEST)).body();
        body.select(UNSEEN).remove();
        Element own = body.clone();
        own.select(ANSWERED).remove();
        Element from = own.selectFirst(ANSWERED_FROM_HERE);
        if (from != null) {
            from.nextElementSiblings().remove();
            from.remove();
        }
        String text = text(own);
        return new Written(text.isBlank() ? text(body) : text);
    }

    private static String beginning(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return new String(in.readNBytes(MOST_BYTES), StandardCharsets.UTF_8);
        }
    }

    private static String text(Element body) {
        StringBuilder text = new StringBuilder();
        NodeTraversor.traverse(new NodeVisitor() {
            @Override
            public void head(Node node, int depth) {
                if (text.length() > LONGEST) {
                    return;
                }
                if (node instanceof TextNode words) {
                    text.append(words.text());
                } else if (node instanceof Element element && (element.isBlock() || element.normalName().equals("br"))) {
                    line(text);
                }
            }

            @Override
            public void tail(Node node, int depth) {
                if (node instanceof Element element && element.isBlock()) {
                    line(text);
                }
            }
        }, body);
        return text.substring(0, Math.min(text.length(), LONGEST)).strip();
    }

    private static void line(StringBuilder text) {
        if (!text.isEmpty() && text.charAt(text.length() - 1) != '\n') {
            text.append('\n');
        }
    }

    @Override
    public Class<Written> answers() {
        return Written.class;
    }
}
