package oakbasket.server.decode.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.poi.hslf.usermodel.HSLFSlideShow;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is shown of files, made here by the formats' own standards: OOXML (ECMA-376), OpenDocument (ISO/IEC 26300), GPX 1.1, CSV (RFC 4180), RTF 1.9. */
class GlancesTest {

    private static final String OOXML_WORDS = "<w:document xmlns:w=\"http://schemas.openxmlformats.org/wordprocessingml/2006/main\"><w:body><w:p><w:r><w:t>Dear</w:t><w:tab/><w:t xml:space=\"preserve\"> Ada</w:t></w:r></w:p>"
            + "<w:p><w:r><w:t>Br\u00fccke &amp; Weg</w:t></w:r></w:p></w:body></w:document>";
    private static final String ODF_WORDS = "<office:document-content xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\" xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\"><office:body><office:text>"
            + "<text:h>Title</text:h><text:p>One<text:s/>two<text:line-break/>three</text:p></office:text></office:body></office:document-content>";
    private static final String ODF_TABLE = "<office:document-content xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\" xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\" "
            + "xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\"><office:body><office:spreadsheet><table:table><table:table-row><table:table-cell><text:p>a</text:p></table:table-cell>"
            + "<table:table-cell table:number-columns-repeated=\"99999\"><text:p>b</text:p></table:table-cell></table:table-row></table:table><table:table><table:table-row><table:table-cell><text:p>second"
            + "</text:p></table:table-cell></table:table-row></table:table></office:spreadsheet></office:body></office:document-content>";

    @TempDir
    private Path folder;

    private Glance of(String name, String mediaType, byte[] content) throws IOException {
        return Glances.of(Files.write(folder.resolve(name), content), name, mediaType);
    }

    private Glance of(String name, String mediaType, String content) throws IOException {
        return of(name, mediaType, content.getBytes(StandardCharsets.UTF_8));
    }

    private static byte[] zip(String name, String content) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry(name));
            zip.write(content.getBytes(StandardCharsets.UTF_8));
        }
        return out.toByteArray();
    }

    @Test
    void documentsAreShownAsText() throws IOException {
        assertThat(of("a.docx", "application/zip", zip("word/document.xml", OOXML_WORDS)).text()).isEqualTo("Dear\t Ada\nBr\u00fccke & Weg");
        assertThat(of("a.odt", "application/zip", zip("content.xml", ODF_WORDS)).text()).isEqualTo("Title\nOne two\nthree");
        assertThat(of("a.pptx", "application/zip", zip("ppt/slides/slide1.xml", "<a:p xmlns:a=\"x\"><a:r><a:t>Slide</a:t></a:r></a:p>")).text()).isEqualTo("Slide");
        assertThat(of("a.rtf", "application/rtf", "{\\rtf1\\ansi Plain {\\b bold} text.\\par}").text()).isEqualTo("Plain bold text.");
    }

    /** The document and the workbook were written by LibreOffice 7.4 in the formats of Word 97 and Excel 97, the slides by Apache POI. */
    @Test
    void officeFilesOfBefore2007AreShownToo() throws Exception {
        assertThat(of("letter.doc", "application/msword", kept("letter.doc")).text().strip().lines().map(String::strip)).containsExactly("Dear Ada,", "the path by the Br\u00fccke is closed.");
        assertThat(of("counts.xls", "application/vnd.ms-excel", kept("counts.xls")).rows().subList(0, 2).stream().map(row -> row.subList(0, 2)).toList())
                .containsExactly(List.of("Site", "Count"), List.of("Upper Fenn", "12"));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (HSLFSlideShow show = new HSLFSlideShow()) {
            show.createSlide().createTextBox().setText("Otter watch, \u00fcber die Br\u00fccke");
            show.write(out);
        }
        assertThat(of("talk.ppt", "application/vnd.ms-powerpoint", out.toByteArray()).text()).contains("Otter watch, \u00fcber die Br\u00fccke");

        // Bytes turned over at random: whatever comes of it, it comes, and soon.
        Random random = new Random(7);
        for (String name : List.of("letter.doc", "counts.xls")) {
            for (int round = 0; round < 300; round++) {
                byte[] broken = kept(name);
                for (int n = 0; n < 1 + random.nextInt(40); n++) {
                    broken[random.nextInt(broken.length)] = (byte) random.nextInt();
                }
                assertThat(of(name, "application/msword", broken).kind()).isIn(Glance.Kind.TEXT, Glance.Kind.TABLE, Glance.Kind.UNREADABLE);
            }
        }
    }

    private static byte[] kept(String name) throws Exception {
        try (InputStream in = GlancesTest.class.getResourceAsStream("/preview/" + name)) {
            return in.readAllBytes();
        }
    }

    @Test
    void textIsReadInWhateverItIsWritten() throws IOException {
        assertThat(of("a.txt", "text/plain", "\uFEFFCaf\u00e9").text()).isEqualTo("Caf\u00e9");
        assertThat(of("a.txt", "text/plain", "Caf\u00e9".getBytes(Charset.forName("windows-1252"))).text()).isEqualTo("Caf\u00e9");
        assertThat(of("a.txt", "text/plain", ("\uFEFF" + "Caf\u00e9").getBytes(StandardCharsets.UTF_16LE)).text()).endsWith("Caf\u00e9");
        Glance cut = of("a.txt", "text/plain", "\u20ac".repeat(70_000));
        assertThat(cut.cut()).isTrue();
        assertThat(cut.text()).hasSize(60_000).matches("\u20ac+");
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', value = {"a.csv | name,river@Ada,\"Fenn, upper\"", "a.csv | name;river@Ada;\"Fenn, upper\"", "a.tsv | name\triver@Ada\tFenn, upper"})
    void commaSeparatedFilesAreTables(String name, String content) throws IOException {
        assertThat(of(name, "text/csv", content.replace('@', '\n')).rows()).containsExactly(List.of("name", "river"), List.of("Ada", "Fenn, upper"));
    }

    @Test
    void workbooksAreTables() throws IOException {
        Path file = folder.resolve("a.xlsx");
        try (OutputStream out = Files.newOutputStream(file); Workbook book = new Workbook(out, "Test", "1.0")) {
            Worksheet sheet = book.newWorksheet("One");
            sheet.value(0, 0, "Site");
            sheet.value(0, 1, 12.5);
            sheet.value(1, 0, LocalDate.of(2027, 3, 28));
            sheet.style(1, 0).format("yyyy-mm-dd").set();
            for (int row = 2; row < 300; row++) {
                sheet.value(row, 0, row);
            }
        }
        Glance glance = Glances.of(file, "a.xlsx", "application/zip");
        assertThat(glance.rows().get(0)).containsExactly("Site", "12.5");
        assertThat(glance.rows().get(1)).containsExactly("2027-03-28");
        assertThat(glance.rows()).hasSize(200);
        assertThat(glance.cut()).isTrue();
        Glance open = of("a.ods", "application/zip", zip("content.xml", ODF_TABLE));
        assertThat(open.rows()).as("the first table alone, repeated cells within bounds").hasSize(1);
        assertThat(open.rows().get(0)).hasSize(40).startsWith("a", "b", "b");
    }

    /** The standard makes neither styles nor the names of cells a duty (ECMA-376, 18.3.1.4). */
    @Test
    void aWorkbookOfTheBareMinimumIsATableToo() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry("xl/sharedStrings.xml"));
            zip.write("<sst><si><t>Site</t></si><si><r><t>Up</t></r><r><t>per</t></r></si></sst>".getBytes(StandardCharsets.UTF_8));
            zip.putNextEntry(new ZipEntry("xl/worksheets/sheet1.xml"));
            zip.write(("<worksheet><sheetData><row><c t=\"s\"><v>0</v></c><c t=\"inlineStr\"><is><t>Count</t></is></c></row><row><c t=\"s\"><v>1</v></c><c><v>12</v></c><c t=\"s\"><v>99</v></c></row></sheetData></worksheet>")
                    .getBytes(StandardCharsets.UTF_8));
        }
        assertThat(of("bare.xlsx", "application/zip", out.toByteArray()).rows()).containsExactly(List.of("Site", "Count"), List.of("Upper", "12", ""));
    }

    @Test
    void tracksAreDrawn() throws IOException {
        StringBuilder track = new StringBuilder("<gpx version=\"1.1\" xmlns=\"http://www.topografix.com/GPX/1/1\"><wpt lat=\"54.5\" lon=\"-2.5\"/><trk><trkseg>");
        for (int n = 0; n < 10_000; n++) {
            track.append("<trkpt lat=\"54.").append(100_000 + n).append("\" lon=\"-2.1\"><ele>5</ele></trkpt>");
        }
        track.append("<trkpt lat=\"154\" lon=\"0\"/><trkpt lat=\"x\" lon=\"0\"/></trkseg></trk></gpx>");
        Glance glance = of("a.gpx", "application/gpx+xml", track.toString());
        assertThat(glance.track()).hasSize(2);
        assertThat(glance.track().get(0)).containsExactly(List.of(54.5, -2.5));
        assertThat(glance.track().get(1)).hasSizeBetween(1_000, 2_100).first().isEqualTo(List.of(54.1, -2.1));
        assertThat(glance.track().get(1)).last().isEqualTo(List.of(54.109999, -2.1));
        assertThat(of("b.gpx", "application/gpx+xml", "<gpx/>").kind()).as("without a point it is text").isEqualTo(Glance.Kind.TEXT);
    }

    @Test
    void hostileFilesAreSurvived() throws IOException {
        String entities = "<!DOCTYPE x [<!ENTITY a \"" + "z".repeat(1_000) + "\"><!ENTITY b \"" + "&a;".repeat(1_000) + "\">]><w:p xmlns:w=\"x\"><w:t>&b;</w:t></w:p>";
        assertThat(of("bomb.docx", "application/zip", zip("word/document.xml", entities)).kind()).isIn(Glance.Kind.UNREADABLE, Glance.Kind.TEXT);
        assertThat(of("bomb.docx", "application/zip", zip("word/document.xml", entities)).text()).hasSizeLessThan(100);
        String outside = "<!DOCTYPE x [<!ENTITY a SYSTEM \"file:///etc/hostname\">]><w:p xmlns:w=\"x\"><w:t>in &a; out</w:t></w:p>";
        assertThat(of("out.docx", "application/zip", zip("word/document.xml", outside)).text()).doesNotContain(Files.readString(Path.of("/etc/hostname")).strip());
        ByteArrayOutputStream large = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(large)) {
            zip.putNextEntry(new ZipEntry("xl/sharedStrings.xml"));
            byte[] nothing = new byte[1 << 20];
            for (int n = 0; n < 64; n++) {
                zip.write(nothing);
            }
        }
        assertThat(of("large.xlsx", "application/zip", large.toByteArray()).kind()).isEqualTo(Glance.Kind.UNREADABLE);
        assertThat(of("cut.xlsx", "application/zip", java.util.Arrays.copyOf(large.toByteArray(), 200)).kind()).isEqualTo(Glance.Kind.UNREADABLE);
        assertThat(of("a.exe", "application/x-msdownload", new byte[] {'M', 'Z'}).kind()).isEqualTo(Glance.Kind.NONE);
        assertThat(of("deep.docx", "application/zip", zip("word/document.xml", "<a>".repeat(200_000))).kind()).isIn(Glance.Kind.UNREADABLE, Glance.Kind.TEXT);
    }
}
