package oakbasket.server.web;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import oakbasket.core.contact.CellGuard;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.springframework.http.ContentDisposition;
import org.springframework.http.ResponseEntity;

/** Tables to be taken away: CSV of RFC 4180 and Office Open XML workbooks. */
public final class TableOut {

    private static final String BYTE_ORDER_MARK = "\uFEFF";

    private TableOut() {
    }

    /**
     * A table as CSV in UTF-8, with a byte order mark, by which spreadsheets know it. A cell that a spreadsheet would compute is kept from it by a quote mark
     * (OWASP, CSV Injection).
     */
    public static byte[] csv(List<String> headers, List<List<String>> rows) {
        StringBuilder out = new StringBuilder(BYTE_ORDER_MARK);
        try (CSVPrinter printer = new CSVPrinter(out, CSVFormat.RFC4180)) {
            printer.printRecord(headers.stream().map(CellGuard::guarded).toList());
            for (List<String> row : rows) {
                printer.printRecord(row.stream().map(ReadersText::of).map(CellGuard::guarded).toList());
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return out.toString().getBytes(StandardCharsets.UTF_8);
    }

    /**
     * A table as a workbook with one sheet; every cell is text, so nothing in it is computed.
     *
     * @param otherwise the name of the sheet where nothing is left of {@code sheetName}
     */
    public static byte[] workbook(String sheetName, String otherwise, List<String> headers, List<List<String>> rows) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (Workbook workbook = new Workbook(out, "Oak Basket", "1.0")) {
            Worksheet sheet = workbook.newWorksheet(sheetName.replaceAll("[\\[\\]:*?/\\\\]", " ").strip().isEmpty() ? otherwise : brief(sheetName));
            for (int column = 0; column < headers.size(); column++) {
                sheet.value(0, column, printable(headers.get(column)));
                sheet.style(0, column).bold().set();
            }
            for (int row = 0; row < rows.size(); row++) {
                for (int column = 0; column < rows.get(row).size(); column++) {
                    sheet.value(row + 1, column, printable(ReadersText.of(rows.get(row).get(column))));
                }
            }
            sheet.freezePane(1, 1);
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return out.toByteArray();
    }

    /** A file to be saved. */
    public static ResponseEntity<byte[]> download(String name, String mediaType, byte[] content) {
        return ResponseEntity.ok().header("Content-Type", mediaType).header("Cache-Control", "no-store")
                .header("Content-Disposition", ContentDisposition.attachment().filename(name, StandardCharsets.UTF_8).build().toString()).body(content);
    }

    /** Without what XML 1.0 cannot hold. */
    private static String printable(String cell) {
        return cell.replaceAll("[\\x00-\\x08\\x0B\\x0C\\x0E-\\x1F\\uFFFE\\uFFFF]", " ");
    }

    private static String brief(String name) {
        String plain = printable(name).replaceAll("[\\[\\]:*?/\\\\']", " ").strip();
        return plain.length() <= 31 ? plain : plain.substring(0, 31);
    }
}
