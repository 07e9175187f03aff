package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.zxing.BinaryBitmap;
import com.google.zxing.client.j2se.BufferedImageLuminanceSource;
import com.google.zxing.common.HybridBinarizer;
import com.google.zxing.qrcode.QRCodeReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.text.Normalizer;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Links as QR codes and on paper, read back by other programs: a second library, zbarimg, pdftotext. */
class HandoutsTest {

    private final TestRound round = awkward().withOpenLink("").open();

    private static TestRound awkward() {
        TestRound round = new TestRound();
        round.sheet.put("note", "Please <b>sign</b> & date.");
        round.sheet.putArray("people");
        return round.person("Zo\u00eb O'Brien & Sons <x>", "zoe@example.org").person("\u0623\u0645\u0644 \u062d\u0633\u0646", "amal@example.org").person("\u0141ucja \u017b\u00f3\u0142\u0107", "lucja@example.org");
    }

    @Test
    void twoOtherReadersReadTheCode(@TempDir Path folder) throws Exception {
        JsonNode link = link(0);
        String url = round.desk.get("/api/links/" + link.path("id").asLong()).json().path("url").asString();
        byte[] png = round.desk.get("/api/handouts/" + link.path("id").asLong() + "/qr.png").response().body();
        assertThat(new QRCodeReader().decode(new BinaryBitmap(new HybridBinarizer(new BufferedImageLuminanceSource(ImageIO.read(new ByteArrayInputStream(png)))))).getText()).isEqualTo(url);
        Path picture = Files.write(folder.resolve("qr.png"), png);
        assertThat(run("zbarimg", "--nodbus", "-q", "--raw", picture.toString()).strip()).isEqualTo(url);
        Http.Answer svg = round.desk.get("/api/handouts/" + link.path("id").asLong() + "/qr.svg");
        assertThat(svg.header("Content-Type")).startsWith("image/svg+xml");
        assertThat(svg.text()).startsWith("<svg").doesNotContain("script");
        assertThat(new Http().get("/api/handouts/" + link.path("id").asLong() + "/qr.png").status()).as("strangers").isEqualTo(401);
    }

    @Test
    void thePaperSaysEverythingAndItsCodeLeadsToTheLink(@TempDir Path folder) throws Exception {
        StringBuilder ids = new StringBuilder();
        for (JsonNode link : round.desk.get("/api/links?round=" + round.id).json().path("links")) {
            ids.append(ids.isEmpty() ? "" : ",").append(link.path("id").asLong());
        }
        Http.Answer pdf = round.desk.post("/api/handouts", "{\"links\":[" + ids + "],\"passcode\":\"\"}");
        assertThat(pdf.status()).as(pdf.text()).isEqualTo(200);
        Path file = Files.write(folder.resolve("sheets.pdf"), pdf.response().body());
        try (PDDocument document = Loader.loadPDF(pdf.response().body())) {
            assertThat(document.getNumberOfPages()).as("three people and the open link").isEqualTo(4);
        }
        String text = run("pdftotext", "-layout", file.toString(), "-");
        assertThat(text).contains("Zo\u00eb O'Brien & Sons <x>", "\u0141ucja \u017b\u00f3\u0142\u0107", "Please <b>sign</b> & date.", "Consent", "Tuesday, 30 June 2026, 17:00 (London time)", "Robin Fenn")
                .doesNotContain("Cut this off");
        run("pdftoppm", "-r", "150", "-png", "-f", "2", "-l", "2", file.toString(), folder.resolve("page").toString());
        String read = run("zbarimg", "--nodbus", "-q", "--raw", folder.resolve("page-2.png").toString()).strip();
        TestRound.Sender sender = new TestRound.Sender(read.substring(read.lastIndexOf('/') + 1));
        assertThat(run("pdftotext", "-f", "2", "-l", "2", file.toString(), "-")).contains(sender.page().json().path("person").asString());
    }

    /** The sheet of each person in their own language; what of it is Arabic is read back in the order it is spoken. */
    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', value = {"ar | \u0625\u0644\u0649 \u0623\u0645\u0644 \u062d\u0633\u0646 | \u0623\u0645\u0644 \u062d\u0633\u0646", "pl | wymagane | 30 czerwca 2026", "de | n\u00f6tig | 30. Juni 2026"})
    void eachSheetIsInItsPersonsLanguage(String language, String words, String more, @TempDir Path folder) throws Exception {
        JsonNode link = link(0);
        for (JsonNode one : round.desk.get("/api/links?round=" + round.id).json().path("links")) {
            link = one.toString().contains("\u0623\u0645\u0644") ? one : link;
        }
        RunningApp.bean(org.springframework.jdbc.core.simple.JdbcClient.class).sql("UPDATE contact SET language = :language WHERE email_key = 'amal@example.org'").param("language", language).update();
        Http.Answer pdf = round.desk.post("/api/handouts", "{\"links\":[" + link.path("id").asLong() + "],\"passcode\":\"\"}");
        assertThat(pdf.status()).as(language).isEqualTo(200);
        String text = run("pdftotext", "-layout", Files.write(folder.resolve("sheet.pdf"), pdf.response().body()).toString(), "-");
        // Paper has the shapes that letters take beside each other (Unicode, Arabic Presentation Forms); compatibility forms are the letters (UAX #15).
        assertThat(Normalizer.normalize(text, Normalizer.Form.NFKC)).contains(words.strip()).contains(more.strip());
    }

    @Test
    void aPasscodeIsPrintedApartAndOnlyIfItIsTheRightOne(@TempDir Path folder) throws Exception {
        long first = link(0).path("id").asLong();
        long second = link(1).path("id").asLong();
        round.desk.post("/api/links/acts", "{\"kind\":\"PASSCODE\",\"ids\":[" + first + "],\"all\":null,\"days\":null,\"passcode\":\"kingfisher\"}");
        assertThat(sheets(first, second, "kingfishes").at("passcode")).contains("not the passcode");
        Http.Answer pdf = sheets(first, second, "kingfisher");
        assertThat(pdf.status()).isEqualTo(200);
        Path file = Files.write(folder.resolve("sheets.pdf"), pdf.response().body());
        assertThat(run("pdftotext", file.toString(), "-").split("kingfisher", -1)).as("on the sheet that is asked for it").hasSize(2);
    }

    @Test
    void nothingIsPrintedOfWithdrawnLinksNorTooMuch() {
        long first = link(0).path("id").asLong();
        round.desk.post("/api/links/acts", "{\"kind\":\"WITHDRAW\",\"ids\":[" + first + "],\"all\":null,\"days\":null,\"passcode\":null}");
        assertThat(sheets(first, first, "").problem()).isEqualTo("handout-none");
        assertThat(round.desk.post("/api/handouts", "{\"links\":[" + "1,".repeat(500) + "1],\"passcode\":\"\"}").at("links")).contains("500");
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource({"open, https://www.example.org http://localhost:8123", "personal, 'none'", "never-was, 'none'"})
    void framesAreForOpenLinksOnListedSites(String which, String ancestors) {
        assertThat(round.desk.put("/api/frames/" + round.id, "{\"origins\":[\"https://WWW.example.org/\",\"http://localhost:8123\"]}").status()).isEqualTo(200);
        String token = which.equals("open") ? round.openLink().token : which.equals("personal") ? round.personal(link(0).path("person").asString()).token : which;
        Http.Answer page = new Http().get("/f/any-name/" + token);
        assertThat(page.status()).isEqualTo(200);
        String expected = ancestors.equals("none") ? "'none'" : "http://localhost:8123 https://www.example.org";
        assertThat(page.header("Content-Security-Policy")).endsWith("frame-ancestors " + expected).contains("script-src 'self'");
        assertThat(page.header("X-Frame-Options")).isEmpty();
        assertThat(new Http().get("/b/" + token).header("Content-Security-Policy")).as("elsewhere nothing changes").endsWith("frame-ancestors 'none'");
    }

    @Test
    void whatIsNoSiteIsToldAtItsLine() {
        Http.Answer refused = round.desk.put("/api/frames/" + round.id, "{\"origins\":[\"https://example.org\",\"*; script-src *\"]}");
        assertThat(refused.at("origins[1]")).contains("https://");
        assertThat(round.desk.get("/api/frames/" + round.id).json().path("origins")).isEmpty();
        assertThat(new Http().get("/api/frames/" + round.id).status()).isEqualTo(401);
    }

    private Http.Answer sheets(long one, long other, String passcode) {
        return round.desk.post("/api/handouts", "{\"links\":[" + one + "," + other + "],\"passcode\":\"" + passcode + "\"}");
    }

    private JsonNode link(int n) {
        return round.desk.get("/api/links?by=PERSON&down=true&round=" + round.id).json().path("links").get(n);
    }

    private static String run(String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.DISCARD).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(said).isZero();
        return said;
    }
}
