package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assertions.assertTimeout;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.util.Optional;
import java.util.zip.CRC32;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.imageio.ImageIO;
import oakbasket.server.decode.Decoders;
import oakbasket.server.decode.work.DecodeWork;
import oakbasket.server.decode.work.DrawPage;
import oakbasket.server.decode.work.Glance;
import oakbasket.server.decode.work.LookAt;
import oakbasket.server.decode.work.MakeLogo;
import oakbasket.server.decode.work.OpenEnvelope;
import oakbasket.server.decode.work.ReadCalendar;
import oakbasket.server.decode.work.ReadCards;
import oakbasket.server.decode.work.ReadMarkup;
import oakbasket.server.decode.work.ReadRows;
import oakbasket.server.problem.Problem;
import org.apache.pdfbox.cos.COSArray;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.poi.hslf.usermodel.HSLFSlideShow;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Whatever a file does to its reader, it costs one child process. Formats: PDF (ISO 32000), PNG (W3C), RTF 1.9, OOXML (ECMA-376), RFC 4180, 5545 and 6350. */
class DecodersTest {

    /** Not a measure of speed: a lane allows 30 seconds, and the machine may be busy. */
    private static final Duration SOON = Duration.ofSeconds(90);

    private static <A> Optional<A> ask(DecodeWork<A> work, byte[] content) {
        return RunningApp.bean(Decoders.class).ask(work, content, Decoders.Lane.DESK);
    }

    private static Optional<Glance> look(String name, byte[] content) {
        return ask(new LookAt(name, "application/octet-stream"), content);
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void everyKindOfWorkComesBackFromAChildAsItWasDoneThere() throws IOException {
        assertThat(look("a.bin", bytes("name,town\nAda,Fennbrook\n")).orElseThrow().kind()).isEqualTo(Glance.Kind.NONE);
        Glance table = ask(new LookAt("a.csv", "text/csv"), bytes("name;town\nÅda;Fennbrook\n")).orElseThrow();
        assertThat(table.rows().get(1)).containsExactly("Åda", "Fennbrook");
        assertThat(ask(new ReadRows("", ""), bytes("Name;E-Mail\nAda;ada@example.org\n")).orElseThrow().columns()).hasSize(2);
        assertThat(ask(new ReadCards(), bytes("BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Ada Brook\r\nEMAIL:ada@example.org\r\nEND:VCARD\r\n")).orElseThrow().rows().get(0).fields().name()).isEqualTo("Ada Brook");
        assertThat(ask(new ReadCalendar(LocalDate.of(2026, 6, 1)), bytes("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nSUMMARY:Fair\r\n"
                + "DTSTART;VALUE=DATE:20260603\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n")).orElseThrow().days().get(0).day()).isEqualTo(LocalDate.of(2026, 6, 3));
        assertThat(ask(new ReadMarkup(), bytes("<p>Hello<br>Ada &amp; Bo</p><blockquote>quoted</blockquote>")).orElseThrow().text()).isEqualTo("Hello\nAda & Bo");
        assertThat(ask(new MakeLogo(), png(900, 300)).orElseThrow().width()).isEqualTo(480);
        DrawPage.Drawn text = ask(new DrawPage(DrawPage.As.TEXT, 2), bytes("line\n".repeat(100))).orElseThrow();
        assertThat(text.pages()).isEqualTo(3);
        assertThat(ImageIO.read(new ByteArrayInputStream(text.png())).getWidth()).isEqualTo(560);
        assertThat(ask(new DrawPage(DrawPage.As.PDF, 1), pdf(1)).orElseThrow().pages()).isEqualTo(1);
        assertThat(ask(new DrawPage(DrawPage.As.PICTURE, 1), png(3_000, 1_000)).orElseThrow().pages()).isEqualTo(1);
        assertThat(look("a.xlsx", workbook()).orElseThrow().rows().get(0)).containsExactly("Name", "7.5");
        try (HSLFSlideShow slides = new HSLFSlideShow()) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            slides.createSlide().addTitle().setText("Before 1997");
            slides.write(out);
            assertThat(look("a.ppt", out.toByteArray()).orElseThrow().text()).contains("Before 1997");
        }
        assertThat(look("a.rtf", bytes("{\\rtf1 Hello}")).orElseThrow().text()).isEqualTo("Hello");
        assertThat(ask(new OpenEnvelope(5), bytes("no envelope"))).as("damaged").isEmpty();
    }

    @Test
    void aRefusalComesBackInItsOwnWordsAndAtItsField() {
        assertThatThrownBy(() -> ask(new ReadRows("", "long"), bytes("a,b\n"))).isInstanceOfSatisfying(Problem.class, refused -> {
            assertThat(refused.kind()).isEqualTo(Problem.Kind.REFUSED);
            assertThat(refused.faults()).singleElement().satisfies(fault -> assertThat(fault.field()).isEqualTo("delimiter"));
        });
        assertThatThrownBy(() -> ask(new ReadRows("", ","), bytes("a,b\n".repeat(100_002)))).isInstanceOfSatisfying(Problem.class, refused -> assertThat(refused.arguments()).containsExactly(100_000));
    }

    /** What ended a child is not tried again: the second answer needs none. A child is counted by the folder it writes to, which is new for each. */
    @Test
    void whatEndsAChildIsNotTriedAgainAndNobodyElseIsHeldUp() throws IOException {
        byte[] bomb = pdfWithPicture(12_000);
        assertTimeout(SOON, () -> assertThat(ask(new DrawPage(DrawPage.As.PDF, 1), bomb)).isEmpty());
        String[] children = children();
        assertThat(ask(new DrawPage(DrawPage.As.PDF, 1), bomb)).isEmpty();
        assertThat(children()).as("nothing was started or ended for it").isEqualTo(children);
        assertThat(ask(new LookAt("a.txt", "text/plain"), bytes("still here")).orElseThrow().text()).isEqualTo("still here");
    }

    @ParameterizedTest
    @ValueSource(strings = {"rtf-deep", "rtf-wide", "rtf-table", "pdf-pages", "pdf-recursive", "pdf-page-tree", "docx-bomb", "xlsx-shared", "xml-nodes", "gpx-endless", "png-huge", "gif-huge", "html-head", "html-deep",
        "csv-quotes", "ics-rules", "vcf-nested", "zip-names"})
    void hostileFilesCostAtMostAChild(String kind) throws IOException {
        byte[] content = hostile(kind);
        DecodeWork<?> work = kind.startsWith("rtf") ? new LookAt("a.rtf", "application/rtf") : kind.startsWith("pdf") ? new DrawPage(DrawPage.As.PDF, 1)
                : kind.startsWith("docx") ? new LookAt("a.docx", "application/zip") : kind.startsWith("xlsx") || kind.startsWith("zip") ? new LookAt("a.xlsx", "application/zip")
                : kind.startsWith("xml") ? new LookAt("a.xml", "application/xml") : kind.startsWith("gpx") ? new LookAt("a.gpx", "application/xml") : kind.startsWith("html") ? new ReadMarkup()
                : kind.startsWith("csv") ? new ReadRows("", "") : kind.startsWith("ics") ? new ReadCalendar(LocalDate.of(2026, 6, 1)) : kind.startsWith("vcf") ? new ReadCards() : new DrawPage(DrawPage.As.PICTURE, 1);
        assertTimeout(SOON, () -> {
            try {
                ask(work, content);
            } catch (Problem refused) {
                assertThat(refused.kind()).isIn(Problem.Kind.REFUSED, Problem.Kind.NOT_FOUND);
            }
        });
        assertThat(ask(new LookAt("a.txt", "text/plain"), bytes("still here " + kind)).orElseThrow().text()).isEqualTo("still here " + kind);
    }

    /** Nothing is read but the file that is given, and nothing is asked of other machines. */
    @ParameterizedTest
    @CsvSource({"file:///etc/hostname", "http://127.0.0.1:9/x"})
    void nothingElseIsReadOrAskedForWhateverAFileNames(String address) {
        Glance seen = ask(new LookAt("a.gpx", "application/xml"), bytes("<!DOCTYPE gpx [<!ENTITY x SYSTEM \"" + address + "\">]><gpx><trk><name>&x;</name></trk></gpx>")).orElseThrow();
        assertThat(seen.text()).doesNotContain(System.getenv().getOrDefault("HOSTNAME", "no-such-name"));
        assertThat(seen.kind()).isIn(Glance.Kind.UNREADABLE, Glance.Kind.TEXT);
    }

    private static String[] children() throws IOException {
        try (var all = Files.list(RunningApp.DATA.resolve("decoding"))) {
            return all.map(Path::getFileName).map(Path::toString).sorted().toArray(String[]::new);
        }
    }

    private static byte[] workbook() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (Workbook workbook = new Workbook(out, "test", "1.0")) {
            Worksheet sheet = workbook.newWorksheet("one");
            sheet.value(0, 0, "Name");
            sheet.value(0, 1, 7.5);
        }
        return out.toByteArray();
    }

    private static byte[] hostile(String kind) throws IOException {
        return switch (kind) {
            case "rtf-deep" -> bytes("{\\rtf1 " + "{".repeat(3_900_000));
            case "rtf-wide" -> bytes("{\\rtf1 " + "{\\b x}".repeat(600_000) + "}");
            case "rtf-table" -> bytes("{\\rtf1 {\\colortbl" + "\\red1;".repeat(600_000) + "}{\\stylesheet" + "{\\s1 a;}".repeat(20_000) + "}}");
            case "pdf-pages" -> pdf(20_000);
            case "pdf-recursive" -> bytes("%PDF-1.4\n1 0 obj " + "[".repeat(1_000_000) + "\n");
            case "pdf-page-tree" -> bytes("%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Count 9/Kids[2 0 R 2 0 R]>>endobj\ntrailer<</Root 1 0 R>>\n");
            case "docx-bomb" -> zip("word/document.xml", "<w:document><w:body><w:p><w:r><w:t>" + "a".repeat(300 << 20 >> 2) + "</w:t></w:r></w:p></w:body></w:document>");
            case "xlsx-shared" -> zip("xl/sharedStrings.xml", "<sst>" + "<si><t>x</t></si>".repeat(4_000_000) + "</sst>");
            case "xml-nodes" -> bytes("<a>".repeat(300_000));
            case "gpx-endless" -> bytes("<gpx><trk><trkseg>" + "<trkpt lat=\"1\" lon=\"2\"/>".repeat(2_500_000));
            case "png-huge" -> pngHeader(65_000, 65_000);
            case "gif-huge" -> new byte[] {'G', 'I', 'F', '8', '9', 'a', -1, -1, -1, -1, 0, 0, 0, ',', 0, 0, 0, 0, -1, -1, -1, -1, 0, 2, 2, 0x4C, 1, 0, ';'};
            case "html-head" -> bytes("<head <head ".repeat(87_000));
            case "html-deep" -> bytes("<div>".repeat(300_000));
            case "csv-quotes" -> bytes("\"".repeat(19 << 20));
            case "ics-rules" -> bytes("BEGIN:VCALENDAR\r\n" + "BEGIN:VEVENT\r\n".repeat(40_000));
            case "vcf-nested" -> bytes("BEGIN:VCARD\r\nVERSION:2.1\r\nAGENT:\r\n".repeat(300_000));
            default -> zip("x".repeat(60_000), "<a/>");
        };
    }

    private static byte[] zip(String name, String content) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry(name));
            zip.write(bytes(content));
        }
        return out.toByteArray();
    }

    private static byte[] png(int width, int height) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB), "png", out);
        return out.toByteArray();
    }

    /** A PNG that says how large it is and has not one line of it. */
    private static byte[] pngHeader(int width, int height) throws IOException {
        byte[] png = png(1, 1);
        for (int at = 0; at < 4; at++) {
            png[16 + at] = (byte) (width >>> 24 - 8 * at);
            png[20 + at] = (byte) (height >>> 24 - 8 * at);
        }
        CRC32 sum = new CRC32();
        sum.update(png, 12, 17);
        for (int at = 0; at < 4; at++) {
            png[29 + at] = (byte) (sum.getValue() >>> 24 - 8 * at);
        }
        return png;
    }

    private static byte[] pdf(int pages) throws IOException {
        try (PDDocument document = new PDDocument()) {
            document.addPage(new PDPage());
            COSArray kids = (COSArray) document.getDocumentCatalog().getPages().getCOSObject().getDictionaryObject(COSName.KIDS);
            for (int page = 1; page < pages; page++) {
                kids.add(kids.get(0));
            }
            document.getDocumentCatalog().getPages().getCOSObject().setInt(COSName.COUNT, pages);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            document.save(out);
            return out.toByteArray();
        }
    }

    /** A page of one picture of so many pixels a side, three bytes each, packed to almost nothing. */
    private static byte[] pdfWithPicture(int side) throws IOException {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (DeflaterOutputStream deflate = new DeflaterOutputStream(packed, new Deflater(Deflater.BEST_COMPRESSION))) {
            byte[] line = new byte[side * 3];
            for (int at = 0; at < side; at++) {
                deflate.write(line);
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(bytes("%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Count 1/Kids[3 0 R]>>endobj\n3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 500 500]/Contents 4 0 R"
                + "/Resources<</XObject<</I 5 0 R>>>>>>endobj\n4 0 obj<</Length 28>>stream\nq 500 0 0 500 0 0 cm /I Do Q\nendstream endobj\n5 0 obj<</Type/XObject/Subtype/Image/Width " + side + "/Height " + side
                + "/ColorSpace/DeviceRGB/BitsPerComponent 8/Filter/FlateDecode/Length " + packed.size() + ">>stream\n"));
        packed.writeTo(out);
        out.write(bytes("\nendstream endobj\ntrailer<</Root 1 0 R>>\n"));
        return out.toByteArray();
    }
}
