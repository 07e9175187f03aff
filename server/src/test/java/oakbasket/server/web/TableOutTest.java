package oakbasket.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import oakbasket.core.contact.CellGuard;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.Row;
import org.h2.tools.Csv;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Tables that go out are read by programs nobody here wrote: the CSV reader of H2 and fastexcel-reader. */
class TableOutTest {

    private static final String[] PIECES = {"a", "Ö", ",", ";", "\"", "'", "=", "+", "-", "@", "\n", " ", "x y", "日", "|", "<b>", "&amp;", "]]>", "%"};

    /** Source: OWASP, CSV Injection: the signs that make a spreadsheet compute a cell. */
    @ParameterizedTest(name = "[{0}]")
    @ValueSource(strings = {"=1+1", "+44 1234", "-2", "@SUM(A1)", "\tx", "\rx", "=cmd|' /C calc'!A0", "'=1+1", " =1+1", "\u00a0=1+1", "\ufeff=1+1", "\u200b=1+1",
        "\u202e=1+1", "\uff1d1+1", "\u200b\u00a0\uff0b1", "\uff20SUM(A1)", "\uff0d2"})
    void nothingThatASpreadsheetWouldComputeGoesOutBare(String cell) {
        String csv = new String(TableOut.csv(List.of("h"), List.of(List.of(cell))), StandardCharsets.UTF_8);
        String written = csv.substring(csv.indexOf("\r\n") + 2);
        assertThat(written.startsWith("\"") ? written.charAt(1) : written.charAt(0)).isEqualTo('\'');
    }

    /** Where the list separator is a semicolon, a spreadsheet parts a line there, whatever stands around it. */
    @ParameterizedTest(name = "[{0}]")
    @CsvSource(delimiter = '!', value = {"a;=1+1!a;'=1+1", "a;'=1!a;''=1", "a;b;+1!a;b;'+1", "x;\u00a0=1!x;'\u00a0=1", "=1;=2!'=1;'=2"})
    void aFormulaIsGuardedAfterAnySeparatorAndComesBackAsItWas(String cell, String written) {
        assertThat(CellGuard.guarded(cell)).isEqualTo(written);
        assertThat(CellGuard.plain(written)).isEqualTo(cell);
    }

    @ParameterizedTest(name = "[{0}]")
    @ValueSource(strings = {"a=1", "2-1", "ada@example.org", "1,5", "O'Brien", "", "a ; b", "x;y=1", "1;2"})
    void whatIsHarmlessGoesOutAsItIs(String cell) throws Exception {
        assertThat(csvRows(List.of(List.of("k", cell))).get(0).get(1)).isEqualTo(cell.isEmpty() ? "" : cell);
    }

    /** Sources: RFC 4180 §2.5 to §2.7; a byte order mark in front, lines that end with CR LF. */
    @Test
    void randomTablesAreReadBackCellByCell() throws Exception {
        Random random = new Random(8);
        List<List<String>> rows = randomRows(random, 300);
        byte[] csv = TableOut.csv(List.of("k", "v"), rows);
        assertThat(new String(csv, StandardCharsets.UTF_8)).startsWith("\uFEFFk,v\r\n");
        List<List<String>> read = csvRows(rows);
        for (int i = 0; i < rows.size(); i++) {
            assertThat(CellGuard.plain(read.get(i).get(1))).isEqualTo(rows.get(i).get(1));
        }
    }

    @Test
    void randomWorkbooksAreReadBackCellByCellAndHoldNoFormula() throws Exception {
        Random random = new Random(9);
        List<List<String>> rows = randomRows(random, 200);
        rows.add(List.of("k", "=1+1"));
        List<Row> read = sheet(TableOut.workbook("Round", "Table", List.of("k", "v"), rows));
        assertThat(read).hasSize(rows.size() + 1);
        for (int i = 0; i < rows.size(); i++) {
            assertThat(read.get(i + 1).getCellText(1)).isEqualTo(rows.get(i).get(1));
            assertThat(read.get(i + 1).getCell(1).getFormula()).isNull();
        }
    }

    /** Names that a sheet cannot have, by the rules that spreadsheets publish: at most 31 characters and none of []:*?/\. */
    @ParameterizedTest(name = "[{0}]")
    @CsvSource({"Packs, Packs", "'a/b\\c:d*e?f[g]h', a b c d e f g h", "'[]', Table", "'   ', Table",
        "'A very long title of a round that goes on and on', A very long title of a round th"})
    void aSheetGetsANameThatItCanHave(String title, String name) throws IOException {
        byte[] book = TableOut.workbook(title, "Table", List.of("h"), List.of());
        try (ReadableWorkbook read = new ReadableWorkbook(new ByteArrayInputStream(book))) {
            assertThat(read.getFirstSheet().getName()).isEqualTo(name);
        }
    }

    /** XML 1.0 cannot hold control characters; a workbook with them would not open. */
    @Test
    void controlCharactersDoNotBreakAWorkbook() throws IOException {
        List<Row> read = sheet(TableOut.workbook("x", "Table", List.of("h\u0000"), List.of(List.of("a\u0001b\u001Fc\uFFFEd"))));
        assertThat(read.get(1).getCellText(0)).isEqualTo("a b c d");
    }

    private static List<List<String>> randomRows(Random random, int count) {
        List<List<String>> rows = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            StringBuilder cell = new StringBuilder("n");
            for (int n = random.nextInt(8); n > 0; n--) {
                cell.append(PIECES[random.nextInt(PIECES.length)]);
            }
            rows.add(List.of("k", cell + "e"));
        }
        return rows;
    }

    private static List<Row> sheet(byte[] book) throws IOException {
        try (ReadableWorkbook read = new ReadableWorkbook(new ByteArrayInputStream(book))) {
            return read.getFirstSheet().read();
        }
    }

    private static List<List<String>> csvRows(List<List<String>> rows) throws SQLException, IOException {
        byte[] csv = TableOut.csv(List.of("k", "v"), rows);
        Csv reader = new Csv();
        reader.setPreserveWhitespace(true);
        reader.setNullString("no such text");
        List<List<String>> read = new ArrayList<>();
        try (ResultSet result = reader.read(new InputStreamReader(new ByteArrayInputStream(csv, 3, csv.length - 3), StandardCharsets.UTF_8), null)) {
            while (result.next()) {
                read.add(List.of(result.getString(1), result.getString(2) == null ? "" : result.getString(2)));
            }
        }
        return read;
    }
}
