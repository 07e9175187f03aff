package oakbasket.server.decode.work;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.swing.text.BadLocationException;
import javax.swing.text.Document;
import javax.swing.text.rtf.RTFEditorKit;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import oakbasket.core.filekind.FileKind;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.jspecify.annotations.Nullable;

/** Looks into files, by what their content is and, where that says too little, by their name. */
final class Glances {

    private static final int MOST_CHARACTERS = 60_000;
    private static final int MOST_TEXT_BYTES = 4 * (MOST_CHARACTERS + 1);
    private static final int MOST_ROWS = 200;
    private static final int MOST_COLUMNS = 40;
    private static final int LONGEST_CELL = 300;
    private static final int MOST_POINTS = 2_000;
    private static final int MOST_TRACK_POINTS = 400_000;
    private static final long LARGEST = 64L << 20;
    private static final int LARGEST_RTF = 4 << 20;
    private static final int DEEPEST_RTF = 500;
    private static final Set<String> TEXT_ENDINGS = Set.of("txt", "md", "csv", "tsv", "json", "geojson", "xml", "kml", "html", "htm", "log", "ini", "yaml", "yml", "svg", "eml", "ics", "vcf");
    /** Where the text of office documents stands: OOXML (ECMA-376) and OpenDocument (ISO/IEC 26300). */
    private static final List<String> TEXT_PARTS = List.of("word/document.xml", "content.xml");

    private Glances() {
    }

    /** What can be shown of a file. */
    static Glance of(Path file, String name, String mediaType) {
        String ending = FileKind.endingOf(name);
        try {
            if (Files.size(file) > LARGEST && !isText(mediaType, ending)) {
                return Glance.of(Glance.Kind.UNREADABLE);
            }
            return switch (ending) {
                case "csv", "tsv" -> isText(mediaType, ending) ? csv(file, ending) : Glance.of(Glance.Kind.NONE);
                case "xlsx" -> table(Workbooks.rows(file, MOST_ROWS + 1, MOST_COLUMNS));
                case "ods" -> sheet(file);
                case "docx", "odt" -> document(file);
                case "pptx", "odp" -> slides(file);
                case "doc" -> cut(OldOffice.document(file));
                case "xls" -> table(OldOffice.rows(file, MOST_ROWS + 1, MOST_COLUMNS));
                case "ppt" -> cut(OldOffice.slides(file));
                case "rtf" -> rtf(file);
                case "gpx" -> gpx(file);
                default -> isText(mediaType, ending) ? text(file) : Glance.of(Glance.Kind.NONE);
            };
        } catch (IOException | XMLStreamException | RuntimeException | BadLocationException damaged) {
            return Glance.of(Glance.Kind.UNREADABLE);
        }
    }

    private static boolean isText(String mediaType, String ending) {
        return mediaType.startsWith("text/") || mediaType.endsWith("xml") || mediaType.endsWith("json") || mediaType.equals("message/rfc822")
                || TEXT_ENDINGS.contains(ending) && mediaType.equals("application/octet-stream");
    }

    private static Glance text(Path file) throws IOException {
        return cut(beginning(file));
    }

    private static Glance cut(String all) {
        return Glance.text(all.substring(0, Math.min(all.length(), MOST_CHARACTERS)), all.length() > MOST_CHARACTERS);
    }

    /** The beginning of a text in UTF-8, UTF-16 by its mark, or else the usual one of Western desks. */
    private static String beginning(Path file) throws IOException {
        byte[] bytes;
        try (InputStream in = Files.newInputStream(file)) {
            bytes = in.readNBytes(MOST_TEXT_BYTES);
        }
        if (bytes.length > 1 && (bytes[0] == -1 && bytes[1] == -2 || bytes[0] == -2 && bytes[1] == -1)) {
            return new String(bytes, StandardCharsets.UTF_16);
        }
        for (int cut = 0; cut < (bytes.length == MOST_TEXT_BYTES ? 4 : 1); cut++) {
            try {
                return StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes, 0, bytes.length - cut)).toString().replace("\uFEFF", "");
            } catch (CharacterCodingException inTheMiddleOrNot) {
                continue;
            }
        }
        return new String(bytes, Charset.forName("windows-1252"));
    }

    private static Glance csv(Path file, String ending) throws IOException {
        String all = beginning(file);
        String head = all.lines().findFirst().orElse("");
        char delimiter = ending.equals("tsv") ? '\t' : Stream.of(',', ';', '\t').max((one, other) -> Long.compare(count(head, one), count(head, other))).orElse(',');
        List<List<String>> rows = new ArrayList<>();
        try (CSVParser parser = CSVFormat.DEFAULT.builder().setDelimiter(delimiter).setIgnoreEmptyLines(true).get().parse(new StringReader(all))) {
            Iterator<CSVRecord> records = parser.iterator();
            while (records.hasNext() && rows.size() <= MOST_ROWS) {
                rows.add(records.next().stream().limit(MOST_COLUMNS).map(Glances::cell).toList());
            }
        } catch (UncheckedIOException | IllegalStateException notCsv) {
            return text(file);
        }
        return table(rows);
    }

    private static long count(String text, char of) {
        return text.chars().filter(c -> c == of).count();
    }

    private static Glance table(List<List<String>> rows) {
        return Glance.table(List.copyOf(rows.subList(0, Math.min(rows.size(), MOST_ROWS))), rows.size() > MOST_ROWS);
    }

    static String cell(String text) {
        return text.length() <= LONGEST_CELL ? text : text.substring(0, LONGEST_CELL) + "…";
    }

    /** The text of a document, a line for each paragraph. */
    private static Glance document(Path file) throws IOException, XMLStreamException {
        try (ZipFile zip = new ZipFile(file.toFile())) {
            for (String part : TEXT_PARTS) {
                ZipEntry entry = zip.getEntry(part);
                if (entry != null) {
                    StringBuilder text = new StringBuilder();
                    paragraphs(zip, entry, text);
                    return glance(text);
                }
            }
        }
        return Glance.of(Glance.Kind.UNREADABLE);
    }

    private static Glance slides(Path file) throws IOException, XMLStreamException {
        StringBuilder text = new StringBuilder();
        try (ZipFile zip = new ZipFile(file.toFile())) {
            for (int n = 1; text.length() <= MOST_CHARACTERS; n++) {
                ZipEntry entry = zip.getEntry("ppt/slides/slide" + n + ".xml");
                if (entry == null) {
                    break;
                }
                paragraphs(zip, entry, text);
                text.append('\n');
            }
            ZipEntry open = zip.getEntry("content.xml");
            if (open != null) {
                paragraphs(zip, open, text);
            }
        }
        return text.isEmpty() ? Glance.of(Glance.Kind.UNREADABLE) : glance(text);
    }

    private static Glance glance(StringBuilder text) {
        return Glance.text(text.substring(0, Math.min(text.length(), MOST_CHARACTERS)).strip(), text.length() > MOST_CHARACTERS);
    }

    private static void paragraphs(ZipFile zip, ZipEntry entry, StringBuilder text) throws IOException, XMLStreamException {
        try (InputStream in = Bounded.stream(zip.getInputStream(entry), Bounded.MOST_BYTES)) {
            XMLStreamReader xml = Bounded.xml(in);
            int inText = 0;
            while (xml.hasNext() && text.length() <= MOST_CHARACTERS) {
                int event = xml.next();
                String name = xml.hasName() ? xml.getLocalName() : "";
                if (event == XMLStreamConstants.START_ELEMENT) {
                    inText += name.equals("t") || name.equals("p") || name.equals("h") ? 1 : 0;
                    text.append(name.equals("tab") ? "\t" : name.equals("br") || name.equals("line-break") ? "\n" : name.equals("s") ? " " : "");
                } else if (event == XMLStreamConstants.END_ELEMENT) {
                    inText -= name.equals("t") || name.equals("p") || name.equals("h") ? 1 : 0;
                    text.append(name.equals("p") || name.equals("h") ? "\n" : "");
                } else if (event == XMLStreamConstants.CHARACTERS && inText > 0) {
                    text.append(xml.getText());
                }
            }
        }
    }

    /** The first table of an OpenDocument workbook; cells and rows that are repeated are repeated within bounds. */
    private static Glance sheet(Path file) throws IOException, XMLStreamException {
        List<List<String>> rows = new ArrayList<>();
        try (ZipFile zip = new ZipFile(file.toFile())) {
            ZipEntry entry = zip.getEntry("content.xml");
            if (entry == null) {
                return Glance.of(Glance.Kind.UNREADABLE);
            }
            try (InputStream in = Bounded.stream(zip.getInputStream(entry), Bounded.MOST_BYTES)) {
                XMLStreamReader xml = Bounded.xml(in);
                List<String> cells = new ArrayList<>();
                StringBuilder text = new StringBuilder();
                int repeat = 1;
                boolean inside = false;
                while (xml.hasNext() && rows.size() <= MOST_ROWS) {
                    int event = xml.next();
                    String name = xml.hasName() ? xml.getLocalName() : "";
                    if (event == XMLStreamConstants.START_ELEMENT && name.equals("table-row")) {
                        cells = new ArrayList<>();
                    } else if (event == XMLStreamConstants.START_ELEMENT && name.equals("table-cell")) {
                        text.setLength(0);
                        inside = true;
                        repeat = repeated(xml);
                    } else if (event == XMLStreamConstants.CHARACTERS && inside && text.length() < LONGEST_CELL) {
                        text.append(xml.getText());
                    } else if (event == XMLStreamConstants.END_ELEMENT && name.equals("table-cell")) {
                        inside = false;
                        for (int n = 0; n < repeat && cells.size() < MOST_COLUMNS; n++) {
                            cells.add(cell(text.toString().strip()));
                        }
                    } else if (event == XMLStreamConstants.END_ELEMENT && name.equals("table-row")) {
                        if (cells.stream().anyMatch(cell -> !cell.isEmpty())) {
                            rows.add(cells);
                        }
                    } else if (event == XMLStreamConstants.END_ELEMENT && name.equals("table")) {
                        break;
                    }
                }
            }
        }
        return table(rows);
    }

    private static int repeated(XMLStreamReader xml) {
        for (int n = 0; n < xml.getAttributeCount(); n++) {
            if (xml.getAttributeLocalName(n).equals("number-columns-repeated") && xml.getAttributeValue(n).matches("\\d{1,6}")) {
                return Integer.parseInt(xml.getAttributeValue(n));
            }
        }
        return 1;
    }

    private static Glance rtf(Path file) throws IOException, BadLocationException {
        try (InputStream in = Files.newInputStream(file)) {
            byte[] content = in.readNBytes(LARGEST_RTF);
            if (depth(content) > DEEPEST_RTF) {
                return Glance.of(Glance.Kind.UNREADABLE);
            }
            RTFEditorKit kit = new RTFEditorKit();
            Document document = kit.createDefaultDocument();
            kit.read(new ByteArrayInputStream(content), document, 0);
            String text = document.getText(0, document.getLength());
            return Glance.text(text.substring(0, Math.min(text.length(), MOST_CHARACTERS)).strip(), text.length() > MOST_CHARACTERS);
        }
    }

    /** How deep the groups of an RTF go (RTF 1.9); each costs memory until its end. */
    private static int depth(byte[] rtf) {
        int depth = 0;
        int deepest = 0;
        for (int at = 0; at < rtf.length; at++) {
            switch (rtf[at]) {
                case '\\' -> at++;
                case '{' -> deepest = Math.max(deepest, ++depth);
                case '}' -> depth--;
                default -> {
                }
            }
        }
        return deepest;
    }

    /** The tracks and routes of a GPX file (GPX 1.1), with as many points as can be told apart on a screen. */
    private static Glance gpx(Path file) throws IOException, XMLStreamException {
        List<List<List<Double>>> parts = new ArrayList<>();
        List<List<Double>> part = new ArrayList<>();
        int points = 0;
        try (InputStream in = Files.newInputStream(file)) {
            XMLStreamReader xml = Bounded.xml(in);
            while (xml.hasNext() && points < MOST_TRACK_POINTS) {
                int event = xml.next();
                String name = xml.hasName() ? xml.getLocalName() : "";
                if (event == XMLStreamConstants.START_ELEMENT && (name.equals("trkpt") || name.equals("rtept") || name.equals("wpt"))) {
                    Double latitude = degrees(xml.getAttributeValue(null, "lat"), 90);
                    Double longitude = degrees(xml.getAttributeValue(null, "lon"), 180);
                    if (latitude != null && longitude != null) {
                        points++;
                        if (name.equals("wpt")) {
                            parts.add(List.of(List.of(latitude, longitude)));
                        } else {
                            part.add(List.of(latitude, longitude));
                        }
                    }
                } else if (event == XMLStreamConstants.END_ELEMENT && (name.equals("trkseg") || name.equals("rte")) && !part.isEmpty()) {
                    parts.add(part);
                    part = new ArrayList<>();
                }
            }
        }
        int every = Math.max(1, points / MOST_POINTS);
        boolean cut = points >= MOST_TRACK_POINTS;
        return parts.isEmpty() ? text(file) : Glance.track(parts.stream().limit(MOST_POINTS).map(one -> thinned(one, every)).toList(), cut);
    }

    private static List<List<Double>> thinned(List<List<Double>> part, int every) {
        List<List<Double>> kept = new ArrayList<>();
        for (int n = 0; n < part.size(); n++) {
            if (n % every == 0 || n == part.size() - 1) {
                kept.add(part.get(n));
            }
        }
        return kept;
    }

    private static @Nullable Double degrees(@Nullable String text, int most) {
        if (text == null || !text.strip().matches("-?\\d{1,3}(\\.\\d{1,15})?")) {
            return null;
        }
        double value = Double.parseDouble(text.strip());
        return Math.abs(value) <= most ? value : null;
    }
}
