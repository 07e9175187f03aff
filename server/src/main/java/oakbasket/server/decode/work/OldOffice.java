package oakbasket.server.decode.work;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.apache.poi.extractor.POITextExtractor;
import org.apache.poi.hslf.extractor.QuickButCruddyTextExtractor;
import org.apache.poi.hssf.usermodel.HSSFSheet;
import org.apache.poi.hssf.usermodel.HSSFWorkbook;
import org.apache.poi.hwpf.extractor.WordExtractor;
import org.apache.poi.poifs.filesystem.POIFSFileSystem;
import org.apache.poi.ss.usermodel.DataFormatter;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.util.IOUtils;

/**
 * Looks into the office files of before 2007, which lie in compound files (Microsoft, MS-CFB). They are read whole and take five times their size and more while they are, so only
 * small ones are looked into, and one at a time.
 */
final class OldOffice {

    private static final long LARGEST = 8L << 20;

    static {
        // What one part of a file claims to hold is not believed beyond what a whole file may be.
        IOUtils.setByteArrayMaxOverride((int) (2 * LARGEST));
    }

    private OldOffice() {
    }

    /** The text of a document. */
    static synchronized String document(Path file) throws IOException {
        try (POIFSFileSystem system = opened(file); POITextExtractor words = new WordExtractor(system)) {
            return words.getText();
        }
    }

    /** What is written on slides, a line for each text. */
    static synchronized String slides(Path file) throws IOException {
        try (POIFSFileSystem system = opened(file)) {
            return String.join("\n", new QuickButCruddyTextExtractor(system).getTextAsVector());
        }
    }

    /** The first rows of the first sheet, as they are shown there. */
    static synchronized List<List<String>> rows(Path file, int mostRows, int mostColumns) throws IOException {
        try (POIFSFileSystem system = opened(file); HSSFWorkbook book = new HSSFWorkbook(system)) {
            List<List<String>> rows = new ArrayList<>();
            DataFormatter shown = new DataFormatter();
            shown.setUseCachedValuesForFormulaCells(true);
            HSSFSheet sheet = book.getSheetAt(0);
            for (int n = sheet.getFirstRowNum(); n >= 0 && n <= sheet.getLastRowNum() && rows.size() < mostRows; n++) {
                Row row = sheet.getRow(n);
                List<String> cells = new ArrayList<>();
                for (int column = 0; row != null && column < Math.min(row.getLastCellNum(), mostColumns); column++) {
                    cells.add(Glances.cell(shown.formatCellValue(row.getCell(column))));
                }
                rows.add(cells);
            }
            return rows;
        }
    }

    private static POIFSFileSystem opened(Path file) throws IOException {
        if (Files.size(file) > LARGEST) {
            throw new IOException("Too large to be read whole");
        }
        return new POIFSFileSystem(file.toFile(), true);
    }
}
