package oakbasket.server.mail;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import oakbasket.server.words.SenderLanguages;
import org.apache.commons.text.StringEscapeUtils;

/**
 * The same letter as plain, sturdy HTML: paragraphs, lists and links and nothing else, so that every program shows it and there is nothing to load. A link shows
 * its whole address, so that the reader sees where it leads.
 */
final class HtmlPart {

    private static final Pattern LINK = Pattern.compile("https?://[^\\s<>\"]+[^\\s<>\".,;:!?)\\]]");
    private static final String PAGE = page();
    private static final String LINE = "{line}";
    private static final String HERE = "{letter}";
    private static final String LANGUAGE = "{language}";
    private static final String DIRECTION = "{direction}";

    private HtmlPart() {
    }

    /** The HTML of a text in a language. @param colour of the line above it, as CSS has it; empty for none */
    static String of(String text, Locale language, String colour) {
        StringBuilder html = new StringBuilder();
        for (String paragraph : text.strip().split("\n\\s*\n")) {
            paragraph(html, paragraph);
        }
        String direction = SenderLanguages.rightToLeft(language) ? "rtl" : "ltr";
        return PAGE.replace(LANGUAGE, language.getLanguage()).replace(DIRECTION, direction).replace(LINE, colour.isEmpty() ? "" : "border-top:4px solid " + colour + ";").replace(HERE, html);
    }

    private static String page() {
        try (InputStream in = HtmlPart.class.getResourceAsStream("/mail/letter.html")) {
            return new String(Objects.requireNonNull(in).readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    private static void paragraph(StringBuilder html, String paragraph) {
        boolean inList = false;
        boolean inText = false;
        for (String typed : paragraph.split("\n")) {
            String line = typed.strip();
            boolean entry = line.startsWith("- ");
            if (inText && entry) {
                html.append("</p>\n");
            }
            if (inList && !entry) {
                html.append("</ul>\n");
            }
            if (entry) {
                html.append(inList ? "" : "<ul>\n").append("<li>").append(linked(line.substring(2))).append("</li>\n");
            } else {
                html.append(inText && !inList ? "<br>\n" : "<p>").append(linked(line));
            }
            inList = entry;
            inText = !entry;
        }
        html.append(inList ? "</ul>\n" : "</p>\n");
    }

    private static String linked(String line) {
        StringBuilder out = new StringBuilder();
        Matcher link = LINK.matcher(line);
        int at = 0;
        while (link.find()) {
            String address = StringEscapeUtils.escapeHtml4(link.group());
            out.append(StringEscapeUtils.escapeHtml4(line.substring(at, link.start()))).append("<a href=\"").append(address).append("\" style=\"color:#2f5a1f;word-break:break-all\">").append(address).append("</a>");
            at = link.end();
        }
        return out.append(StringEscapeUtils.escapeHtml4(line.substring(at))).toString();
    }
}
