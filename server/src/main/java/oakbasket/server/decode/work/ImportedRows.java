package oakbasket.server.decode.work;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import oakbasket.core.contact.ContactColumn;
import oakbasket.server.problem.Problem;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/**
 * A table as it came: rows of cells with their line numbers. Character set and delimiter are detected where they are not given.
 *
 * @param charset its name, for people
 * @param delimiter as typed; a tab as such
 */
public record ImportedRows(String charset, char delimiter, List<Line> lines) {

    /** A row, and the line of the file it begins on, from 1. */
    public record Line(int number, List<String> cells) {
    }

    private static final int MOST_ROWS = 100_000;
    private static final int MOST_COLUMNS = 200;
    private static final int LOOKED_AT = 50;
    /** How much of a text is looked at to find its delimiter, in characters. */
    private static final int LOOKED_AT_CHARACTERS = 1 << 18;
    private static final char[] DELIMITERS = {',', ';', '\t', '|'};
    private static final Charset WINDOWS = Charset.forName("windows-1252");

    /**
     * Reads a table.
     *
     * @param charset the name of a character set; empty means it is detected
     * @param delimiter one character; empty means it is detected
     * @throws Problem with status 422 when this is no table of text
     */
    static ImportedRows read(byte[] content, String charset, String delimiter) {
        if (content.length >= 4 && content[0] == 'P' && content[1] == 'K' && content[2] == 3) {
            throw Problem.refused("import-workbook");
        }
        Charset set = charset.isEmpty() ? detect(content) : named(charset);
        String text = decode(content, set);
        if (!delimiter.isEmpty() && (delimiter.length() > 1 || delimiter.charAt(0) != '\t' && delimiter.charAt(0) < ' ' || "\"\uFEFF\u2028\u2029\u0085".contains(delimiter))) {
            throw Problem.field("delimiter", "one-delimiter");
        }
        char parted = delimiter.isEmpty() ? delimiter(text) : delimiter.charAt(0);
        List<Line> lines = parse(text, parted, MOST_ROWS + 1);
        if (lines.isEmpty()) {
            throw Problem.refused("import-empty");
        }
        if (lines.size() > MOST_ROWS) {
            throw Problem.refused("import-too-long", MOST_ROWS);
        }
        if (lines.stream().anyMatch(line -> line.cells().size() > MOST_COLUMNS)) {
            throw Problem.refused("import-not-a-table");
        }
        return new ImportedRows(set.equals(WINDOWS) ? "Windows-1252" : set.name(), parted, lines);
    }

    /** Whether the first row seems to name the columns. */
    public boolean headed() {
        return ContactColumn.isHeader(lines.get(0).cells());
    }

    /** What each column seems to hold. */
    public List<ContactColumn> columns() {
        int width = lines.stream().limit(LOOKED_AT).mapToInt(line -> line.cells().size()).max().orElse(0);
        List<ContactColumn> columns = new ArrayList<>(headed() ? ContactColumn.byHeaders(lines.get(0).cells())
                : ContactColumn.byContent(lines.stream().limit(LOOKED_AT).map(Line::cells).toList()));
        while (columns.size() < width) {
            columns.add(ContactColumn.NONE);
        }
        return columns;
    }

    private static String decode(byte[] content, Charset set) {
        String text = new String(content, set);
        String plain = text.startsWith("\uFEFF") ? text.substring(1) : text;
        long strange = plain.chars().filter(c -> c < ' ' && c != '\t' && c != '\r' && c != '\n').count();
        if (strange > 0 && (plain.indexOf('\0') >= 0 || strange * 200 > plain.length())) {
            throw Problem.refused("import-not-a-table");
        }
        return plain;
    }

    /** By the byte order mark, by the pattern of zeros, by what is valid UTF-8, else the usual one of Western spreadsheets. */
    private static Charset detect(byte[] content) {
        if (content.length >= 2 && (content[0] & 0xFF) == 0xFF && (content[1] & 0xFF) == 0xFE) {
            return StandardCharsets.UTF_16LE;
        }
        if (content.length >= 2 && (content[0] & 0xFF) == 0xFE && (content[1] & 0xFF) == 0xFF) {
            return StandardCharsets.UTF_16BE;
        }
        if (content.length >= 4 && content[1] == 0 && content[3] == 0 && content[0] != 0) {
            return StandardCharsets.UTF_16LE;
        }
        if (content.length >= 4 && content[0] == 0 && content[2] == 0 && content[1] != 0) {
            return StandardCharsets.UTF_16BE;
        }
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(content));
            return StandardCharsets.UTF_8;
        } catch (CharacterCodingException notUtf8) {
            return WINDOWS;
        }
    }

    private static Charset named(String name) {
        return switch (name) {
            case "UTF-8" -> StandardCharsets.UTF_8;
            case "UTF-16LE" -> StandardCharsets.UTF_16LE;
            case "UTF-16BE" -> StandardCharsets.UTF_16BE;
            case "Windows-1252" -> WINDOWS;
            default -> throw Problem.field("charset", "not-a-charset");
        };
    }

    /** The delimiter that parts most rows into the same number of columns, more than one. */
    private static char delimiter(String text) {
        String beginning = text.length() <= LOOKED_AT_CHARACTERS ? text : text.substring(0, LOOKED_AT_CHARACTERS);
        char best = ',';
        long bestScore = -1;
        for (char candidate : DELIMITERS) {
            long score = score(beginning, candidate);
            if (score > bestScore) {
                best = candidate;
                bestScore = score;
            }
        }
        return best;
    }

    private static long score(String text, char delimiter) {
        try {
            List<Line> sample = parse(text, delimiter, LOOKED_AT);
            int width = sample.isEmpty() ? 0 : sample.get(0).cells().size();
            long even = sample.stream().filter(line -> line.cells().size() == width).count();
            return width < 2 ? 0 : even * 1_000 / sample.size() * 10 + width;
        } catch (Problem unreadable) {
            // What parts the text into too many cells is more likely meant than what does not part it at all; the reading then refuses it.
            return 1;
        }
    }

    private static List<Line> parse(String text, char delimiter, int most) {
        TableBounds.check(text, delimiter, most, MOST_COLUMNS, MOST_ROWS);
        CSVFormat format = CSVFormat.RFC4180.builder().setDelimiter(delimiter).setIgnoreEmptyLines(false).setLenientEof(true).setTrailingData(true).get();
        List<Line> lines = new ArrayList<>();
        try (CSVParser parser = CSVParser.parse(text, format)) {
            long before = 0;
            for (CSVRecord row : parser) {
                List<String> cells = row.toList();
                if (cells.stream().anyMatch(cell -> !cell.isBlank())) {
                    lines.add(new Line((int) before + 1, cells));
                }
                before = parser.getCurrentLineNumber();
                if (lines.size() >= most || row.getRecordNumber() >= (long) most * TableBounds.MOST_EMPTY_PER_ROW) {
                    break;
                }
            }
            return lines;
        } catch (UncheckedIOException | IOException | IllegalStateException broken) {
            throw Problem.refused("import-not-a-table");
        }
    }
}
