package oakbasket.server.decode.work;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;

/** The first rows of the first sheet of an Office Open XML workbook (ECMA-376). */
final class Workbooks {

    /** Dates are numbers that only their format tells from others. */
    private static final ReadingOptions WITH_FORMATS = new ReadingOptions(true, true);
    private static final int MOST_STRINGS = 100_000;

    private Workbooks() {
    }

    static List<List<String>> rows(Path file, int mostRows, int mostColumns) throws IOException, XMLStreamException {
        Bounded.weigh(file);
        try {
            return read(file, mostRows, mostColumns);
        } catch (IOException | RuntimeException leftOut) {
            // The standard lets a sheet leave out styles and where its cells are; the library does not.
            return plain(file, mostRows, mostColumns);
        }
    }

    private static List<List<String>> read(Path file, int mostRows, int mostColumns) throws IOException {
        List<List<String>> rows = new ArrayList<>();
        try (InputStream in = Files.newInputStream(file); ReadableWorkbook workbook = new ReadableWorkbook(in, WITH_FORMATS); Stream<Row> all = workbook.getFirstSheet().openStream()) {
            for (Iterator<Row> each = all.iterator(); each.hasNext() && rows.size() < mostRows;) {
                Row row = each.next();
                List<String> cells = new ArrayList<>();
                for (int column = 0; column < Math.min(row.getCellCount(), mostColumns); column++) {
                    Cell found = row.getCell(column);
                    cells.add(found == null ? "" : Glances.cell(words(found)));
                }
                rows.add(cells);
            }
        }
        return rows;
    }

    private static String words(Cell cell) {
        String format = cell.getDataFormatString();
        if (cell.getType() == CellType.NUMBER && format != null && format.toLowerCase(Locale.ROOT).matches(".*[yd].*")) {
            return cell.asDate() == null ? cell.getText() : cell.asDate().toLocalDate().toString();
        }
        return cell.getText();
    }

    private static List<List<String>> plain(Path file, int mostRows, int mostColumns) throws IOException, XMLStreamException {
        try (ZipFile zip = new ZipFile(file.toFile())) {
            ZipEntry sheet = zip.getEntry("xl/worksheets/sheet1.xml");
            if (sheet == null) {
                throw new IOException("no sheet");
            }
            return cells(zip, sheet, shared(zip), mostRows, mostColumns);
        }
    }

    private static List<String> shared(ZipFile zip) throws IOException, XMLStreamException {
        List<String> strings = new ArrayList<>();
        ZipEntry entry = zip.getEntry("xl/sharedStrings.xml");
        if (entry == null) {
            return strings;
        }
        try (InputStream in = Bounded.stream(zip.getInputStream(entry), Bounded.MOST_BYTES)) {
            XMLStreamReader xml = Bounded.xml(in);
            StringBuilder text = new StringBuilder();
            boolean inText = false;
            while (xml.hasNext() && strings.size() < MOST_STRINGS) {
                int event = xml.next();
                String name = xml.hasName() ? xml.getLocalName() : "";
                if (name.equals("t")) {
                    inText = event == XMLStreamConstants.START_ELEMENT;
                } else if (event == XMLStreamConstants.CHARACTERS && inText) {
                    text.append(xml.getText());
                } else if (event == XMLStreamConstants.END_ELEMENT && name.equals("si")) {
                    strings.add(text.toString());
                    text.setLength(0);
                }
            }
        }
        return strings;
    }

    private static List<List<String>> cells(ZipFile zip, ZipEntry sheet, List<String> shared, int mostRows, int mostColumns) throws IOException, XMLStreamException {
        List<List<String>> rows = new ArrayList<>();
        try (InputStream in = Bounded.stream(zip.getInputStream(sheet), Bounded.MOST_BYTES)) {
            XMLStreamReader xml = Bounded.xml(in);
            List<String> cells = new ArrayList<>();
            StringBuilder text = new StringBuilder();
            String type = "";
            boolean inValue = false;
            while (xml.hasNext() && rows.size() < mostRows) {
                int event = xml.next();
                String name = xml.hasName() ? xml.getLocalName() : "";
                if (event == XMLStreamConstants.START_ELEMENT && name.equals("c")) {
                    text.setLength(0);
                    type = String.valueOf(xml.getAttributeValue(null, "t"));
                } else if (name.equals("v") || name.equals("t")) {
                    inValue = event == XMLStreamConstants.START_ELEMENT;
                } else if (event == XMLStreamConstants.CHARACTERS && inValue) {
                    text.append(xml.getText());
                } else if (event == XMLStreamConstants.END_ELEMENT && name.equals("c") && cells.size() < mostColumns) {
                    cells.add(Glances.cell(type.equals("s") ? string(shared, text.toString()) : text.toString()));
                } else if (event == XMLStreamConstants.END_ELEMENT && name.equals("row")) {
                    rows.add(cells);
                    cells = new ArrayList<>();
                }
            }
        }
        return rows;
    }

    private static String string(List<String> shared, String number) {
        int at = number.matches("\\d{1,9}") ? Integer.parseInt(number) : -1;
        return at >= 0 && at < shared.size() ? shared.get(at) : "";
    }
}
