package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.awt.image.DataBuffer;
import java.awt.image.Raster;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.zip.CRC32;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriter;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.node.ObjectNode;

/** The office's own face: what is taken, what is refused with something better, and that everybody outside sees it. */
class BrandTest {

    private final Http desk = Http.desk();

    @AfterEach
    void asItWas() {
        assertThat(put("{\"name\":\"Fennbrook Catchment Partnership\"}").status()).isEqualTo(200);
    }

    private Http.Answer put(String face) {
        ObjectNode typed = (ObjectNode) Http.JSON.readTree(face);
        return desk.put("/api/brand", typed.put("version", desk.get("/api/brand").json().path("version").asInt()).toString());
    }

    private Http.Answer logo(byte[] content) {
        return desk.send("POST", "/api/brand/logos", content, "Content-Type", "application/octet-stream");
    }

    private static byte[] picture(int width, int height, String kind) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        image.setRGB(width / 2, height / 2, Color.GREEN.getRGB());
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, kind, out);
        return out.toByteArray();
    }

    /** A PNG that says how large it is and holds nothing more (W3C, PNG specification, 11.2.2). */
    private static byte[] pngOf(int width, int height) {
        byte[] head = ByteBuffer.allocate(17).put("IHDR".getBytes(StandardCharsets.US_ASCII)).putInt(width).putInt(height).put(new byte[] {8, 2, 0, 0, 0}).array();
        CRC32 crc = new CRC32();
        crc.update(head);
        return ByteBuffer.allocate(33).put(new byte[] {(byte) 0x89, 'P', 'N', 'G', 13, 10, 26, 10}).putInt(13).put(head).putInt((int) crc.getValue()).array();
    }

    @ParameterizedTest
    @CsvSource({"png, 1200, 400, 480, 160", "jpg, 100, 50, 100, 50", "gif, 3000, 10, 480, 2", "png, 10, 4000, 1, 160"})
    void aPictureIsBroughtToItsSizeAndWrittenAnew(String kind, int width, int height, int wide, int high) throws IOException {
        byte[] given = picture(width, height, kind);
        String hash = logo(given).json().path("logo").asString();
        Http.Answer answer = new Http().get("/brand/" + hash + ".png");
        assertThat(answer.header("Content-Type")).isEqualTo("image/png");
        assertThat(answer.header("Cache-Control")).contains("immutable");
        BufferedImage made = ImageIO.read(new ByteArrayInputStream(answer.response().body()));
        assertThat(new int[] {made.getWidth(), made.getHeight()}).containsExactly(wide, high);
        assertThat(answer.text()).doesNotContain("Exif");
    }

    @ParameterizedTest(name = "{1}")
    @CsvSource(delimiter = '|', quoteCharacter = '`', value = {"<svg xmlns=\"http://www.w3.org/2000/svg\"><script>alert(1)</script></svg> | SVG is not taken", "<?xml version=\"1.0\"?> <svg/> | SVG is not taken", "<html><script>alert(1)</script></html> | no picture",
        "`` | empty", "GIF89a | cannot be read", "plain text | no picture", "%PDF-1.7 | no picture"})
    void whatIsNoPictureIsNotTakenAndSaysWhy(String content, String why) {
        Http.Answer answer = logo(content.getBytes(StandardCharsets.UTF_8));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.at("logo")).contains(why);
    }

    @Test
    void aPictureInTheColoursOfAPressIsTaken() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        writer.setOutput(ImageIO.createImageOutputStream(out));
        writer.write(null, new IIOImage(Raster.createInterleavedRaster(DataBuffer.TYPE_BYTE, 20, 20, 4, null), null, null), null);
        writer.dispose();
        assertThat(logo(out.toByteArray()).status()).isEqualTo(201);
    }

    @Test
    void aHugePictureIsRefusedBeforeAnyOfItIsRead() {
        assertThat(logo(pngOf(10_000, 10_000)).at("logo")).as("100 million pixels").contains("16 million");
        assertThat(logo(pngOf(Integer.MAX_VALUE, Integer.MAX_VALUE)).at("logo")).isNotEmpty();
        assertThat(logo(pngOf(100, 100)).at("logo")).as("nothing behind its head").contains("cannot be read");
        assertThat(logo(new byte[2 * 1024 * 1024 + 1]).status()).isEqualTo(413);
        assertThat(new Http().get("/brand/..%2f..%2fdb.png").status()).isIn(400, 404);
        assertThat(new Http().get("/brand/" + "0".repeat(64) + ".png").status()).isEqualTo(404);
    }

    @ParameterizedTest
    @CsvSource({"{\"name\":\"A\";\"colour\":\"#ffee00\"}, colour, nearest that can is #", "{\"name\":\"A\";\"colour\":\"green\"}, colour, hexadecimal", "{\"name\":\"A\";\"background\":\"#333333\"}, background, nearest on which it can is #",
        "{\"name\":\"  \"}, name, ''", "{\"name\":\"A\";\"logo\":\"nothing\"}, logo, Choose", "{\"name\":\"A\";\"colour\":\"#47682f;}body{x:url(//evil)\"}, colour, hexadecimal"})
    void whatCannotBeUsedIsToldWithSomethingThatCan(String face, String field, String words) {
        Http.Answer refused = put(face.replace("\";\"", "\",\""));
        assertThat(refused.status()).as(refused.text()).isEqualTo(422);
        assertThat(refused.at(field)).isNotEmpty().contains(words);
        assertThat(desk.get("/api/brand").json().path("name").asString()).isEqualTo("Fennbrook Catchment Partnership");
    }

    @Test
    void colourWithoutContrastGetsTheNearestThatPasses() {
        var seen = desk.post("/api/brand/colours", "{\"colour\":\"#ffee00\",\"background\":\"#f6f1e6\"}").json();
        assertThat(seen.path("contrast").asDouble()).isLessThan(4.5);
        assertThat(put("{\"name\":\"A\",\"colour\":\"" + seen.path("nearest").asString() + "\"}").status()).isEqualTo(200);
    }

    @Test
    void everybodyOutsideSeesIt() throws IOException {
        String logo = logo(picture(60, 30, "png")).json().path("logo").asString();
        assertThat(put("{\"name\":\"Fenn & <b>Brook</b>\",\"colour\":\"#7a1f5c\",\"background\":\"#eef3ff\",\"logo\":\"" + logo + "\",\"contact\":\"1 Mill Lane, 01632 960123\",\"privacy\":\"Kept for a year </script><script>alert(1)\"}").status()).isEqualTo(200);
        TestRound round = new TestRound().onlyPeople("Ada Faced").withLetters("{\"invite\":true}").open();
        TestRound.Sender sender = round.personal("Ada Faced");
        String page = new Http().get("/b/" + sender.token).text();
        assertThat(page).contains("#7a1f5c", "#eef3ff", logo, "1 Mill Lane").doesNotContain("</script><script>alert");
        assertThat(new Http().get("/b/no-such-link").text()).as("refused pages wear it too").contains("#7a1f5c");
        assertThat(sender.page().json().path("office").asString()).isEqualTo("Fenn & <b>Brook</b>");
        assertThat(new Http().get("/p/no-such-parcel").text()).contains("#7a1f5c", logo);
        long link = desk.get("/api/links?round=" + round.id).json().path("links").get(0).path("id").asLong();
        Http.Answer pdf = desk.post("/api/handouts", "{\"links\":[" + link + "]}");
        assertThat(pdf.status()).as(pdf.text()).isEqualTo(200);
        try (var document = Loader.loadPDF(pdf.response().body())) {
            assertThat(new PDFTextStripper().getText(document)).contains("Fenn & <b>Brook</b>", "1 Mill Lane, 01632 960123", "Kept for a year");
        }
        desk.post("/api/post/test", "");
        var letter = Waiting.until(() -> Outbox.to(RunningApp.EMAIL), all -> all.stream().anyMatch(mail -> Outbox.text(mail).contains("1 Mill Lane"))).stream().filter(mail -> Outbox.text(mail).contains("1 Mill Lane")).findFirst().orElseThrow();
        assertThat(Outbox.text(letter)).endsWith("1 Mill Lane, 01632 960123\nKept for a year </script><script>alert(1)\n");
    }

    @Test
    void twoAtOnceDoNotOverwriteEachOther() {
        int version = desk.get("/api/brand").json().path("version").asInt();
        assertThat(desk.put("/api/brand", "{\"name\":\"One\",\"version\":" + version + "}").status()).isEqualTo(200);
        assertThat(desk.put("/api/brand", "{\"name\":\"Two\",\"version\":" + version + "}").problem()).isEqualTo("changed-elsewhere");
    }
}
