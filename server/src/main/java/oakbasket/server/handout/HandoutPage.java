package oakbasket.server.handout;

import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.text.Bidi;
import java.util.Base64;
import java.util.List;
import java.util.stream.Stream;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import oakbasket.server.brand.Brand;
import oakbasket.server.brand.Face;
import oakbasket.server.qr.QrPicture;
import oakbasket.server.words.SenderLanguages;
import oakbasket.server.words.Words;
import org.springframework.core.io.ClassPathResource;

/** Writes sheets as XHTML, from which the PDF is made. Everything that people typed goes through the writer, which escapes it. */
final class HandoutPage {

    /** What a sheet asks for in one line of its checklist. */
    record Line(String title, String help, boolean required) {
    }

    /**
     * What stands on one sheet.
     *
     * @param words in the language of the person
     * @param person for whom it is; empty for an open link
     * @param deadline in words
     * @param parcel whether it hands files out; else it asks for papers
     * @param guarded whether the link asks for a passcode
     * @param passcode for the part that is torn off; empty for none
     */
    record Sheet(Words words, String office, String askedBy, String title, String person, String note, String deadline, List<Line> items, String address, boolean parcel, boolean guarded, String passcode, SheetLook look) {
    }

    /**
     * The office's own look.
     *
     * @param colour as CSS has it; empty for that of the product
     * @param logo as PNG; empty for none
     * @param foot lines that stand below; may be empty
     */
    record SheetLook(String colour, byte[] logo, List<String> foot) {
    }

    /** What a paragraph holds, written by whoever knows it. */
    private interface Inside {
        void write() throws XMLStreamException;
    }

    private static final String STYLE = style();
    private static final String BRANDED = ".office { color: {colour}; border-bottom-color: {colour}; } .deadline { border-color: {colour}; }";
    private static final String PICTURE = "data:image/png;base64,";
    private static final String EMPTY_BOX = "\u2610";

    private final StringWriter out = new StringWriter();
    private final XMLStreamWriter xml;
    private Words words;

    private HandoutPage(Words words) throws XMLStreamException {
        this.words = words;
        this.xml = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(out);
    }

    /** The office's own look, as it is now. */
    static SheetLook look(Brand brand) {
        Face face = brand.now();
        return new SheetLook(face.colour(), brand.logo().orElse(new byte[0]), Stream.of(face.contact(), face.privacy()).filter(line -> !line.isEmpty()).toList());
    }

    static String of(List<Sheet> sheets) {
        try {
            return new HandoutPage(sheets.get(0).words()).page(sheets);
        } catch (XMLStreamException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    private String page(List<Sheet> sheets) throws XMLStreamException {
        xml.writeStartElement("html");
        element("head", "", () -> {
            element("title", "", sheets.get(0).title());
            String colour = sheets.get(0).look().colour();
            element("style", "", STYLE + (colour.isEmpty() ? "" : BRANDED.replace("{colour}", colour)));
        });
        element("body", "", () -> {
            for (Sheet sheet : sheets) {
                words = sheet.words();
                element("div", "sheet", () -> {
                    xml.writeAttribute("lang", words.language().toLanguageTag());
                    xml.writeAttribute("dir", SenderLanguages.rightToLeft(words.language()) ? "rtl" : "ltr");
                    sheet(sheet);
                });
            }
        });
        xml.writeEndElement();
        return out.toString();
    }

    private void sheet(Sheet sheet) throws XMLStreamException {
        if (sheet.look().logo().length > 0) {
            element("p", "logo", () -> {
                xml.writeEmptyElement("img");
                xml.writeAttribute("alt", "");
                xml.writeAttribute("src", PICTURE + Base64.getEncoder().encodeToString(sheet.look().logo()));
            });
        }
        element("p", "office", words.of(sheet.parcel() ? "handout.hands" : "handout.asks", sheet.office()));
        element("h1", direction(sheet.title()), sheet.title());
        element("p", "for", sheet.person().isEmpty() ? "" : words.of("handout.for", sheet.person()));
        element("p", String.join(" ", "note", direction(sheet.note())), sheet.note());
        element("p", "deadline", words.of(sheet.parcel() ? "handout.until" : "handout.by", sheet.deadline()));
        element("table", "way", () -> element("tr", "", () -> {
            element("td", "code", () -> {
                xml.writeEmptyElement("img");
                xml.writeAttribute("alt", "");
                xml.writeAttribute("src", PICTURE + Base64.getEncoder().encodeToString(new QrPicture(sheet.address()).png()));
            });
            element("td", "", () -> {
                element("p", "", words.of("handout.how"));
                element("p", "address", sheet.address());
                element("p", "quiet", words.of(sheet.guarded() ? "handout.guarded" : sheet.parcel() ? "handout.parcel-private" : "handout.private"));
            });
        }));
        element("h2", "", words.of(sheet.parcel() ? "handout.files" : "handout.list"));
        element("ul", "", () -> {
            for (Line line : sheet.items()) {
                element("li", "", () -> line(line, sheet.parcel()));
            }
        });
        element("p", "quiet", words.of("handout.questions", sheet.askedBy(), sheet.office()));
        for (String line : sheet.look().foot()) {
            element("p", "quiet", line);
        }
        if (!sheet.passcode().isEmpty()) {
            element("div", "tear", () -> {
                element("p", "", words.of("handout.tear", sheet.title()));
                element("p", "passcode", sheet.passcode());
                element("p", "quiet", words.of("handout.apart"));
            });
        }
    }

    private void line(Line line, boolean parcel) throws XMLStreamException {
        if (parcel) {
            element("b", direction(line.title()), line.title());
            return;
        }
        element("span", "box", EMPTY_BOX);
        element("b", "", line.title());
        element("span", "mark", words.of(line.required() ? "handout.required" : "handout.optional"));
        element("div", direction(line.help()), line.help());
    }

    /** What somebody typed may be written the other way than the sheet (UAX #9, P2: the first strong character decides). */
    private static String direction(String typed) {
        return new Bidi(typed, Bidi.DIRECTION_DEFAULT_LEFT_TO_RIGHT).baseIsLeftToRight() ? "ltr" : "rtl";
    }

    /** An element with text; none where there is no text. */
    private void element(String name, String kind, String text) throws XMLStreamException {
        if (!text.isEmpty()) {
            element(name, kind, () -> xml.writeCharacters(known(text)));
        }
    }

    private void element(String name, String kind, Inside inside) throws XMLStreamException {
        xml.writeStartElement(name);
        if (!kind.isEmpty()) {
            xml.writeAttribute("class", kind);
        }
        inside.write();
        xml.writeEndElement();
    }

    /** The text without characters that XML 1.0 (2.2) does not know. */
    private static String known(String text) {
        return text.codePoints().filter(c -> c == '\t' || c == '\n' || c >= 0x20 && c <= 0xD7FF || c >= 0xE000 && c <= 0xFFFD || c >= 0x10000)
                .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append).toString();
    }

    private static String style() {
        try {
            return new ClassPathResource("handout/handout.css").getContentAsString(StandardCharsets.UTF_8);
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }
}
