package oakbasket.server.upload;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.tika.Tika;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ContentLookTest {

    @TempDir
    Path folder;

    /** Source: tika-core as the reference for what a signature means. */
    @ParameterizedTest(name = "{0} as {2}, to tika-core {3}")
    @CsvSource({"png, 89504E470D0A1A0A0000000D49484452, image/png, image/png", "jpg, FFD8FFE000104A464946, image/jpeg, image/jpeg", "gif, 474946383961, image/gif, image/gif",
        "pdf, 255044462D312E34, application/pdf, application/pdf", "exe, 4D5A90000300000004000000, application/x-msdownload, application/x-msdownload",
        "elf, 7F454C4602010100, application/x-elf, application/x-elf", "class, CAFEBABE00000041, application/java-vm, application/java-vm"})
    void signaturesMeanWhatTheyMeanToOthers(String ending, String hexadecimal, String mediaType, String reference) throws IOException {
        byte[] content = Arrays.copyOf(java.util.HexFormat.of().parseHex(hexadecimal), 600);
        assertThat(look("file." + ending, content)).isEqualTo(mediaType);
        assertThat(new Tika().detect(content)).isEqualTo(reference);
    }

    @ParameterizedTest(name = "a ZIP with {0}, called {1}: {2}")
    @CsvSource({
        "'[Content_Types].xml xl/workbook.xml', a.xlsx, application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
        "'[Content_Types].xml word/document.xml', a.docx, application/vnd.openxmlformats-officedocument.wordprocessingml.document",
        "'[Content_Types].xml word/document.xml', a.xlsx, application/vnd.openxmlformats-officedocument.wordprocessingml.document",
        "'photo.jpg', a.xlsx, application/zip",
        "'photo.jpg', a.zip, application/zip",
        "'META-INF/MANIFEST.MF Run.class', a.zip, application/java-archive",
        "'[Content_Types].xml word/document.xml word/vbaProject.bin', a.docx, application/vnd.ms-office.macroenabled",
        "'mimetype=application/vnd.oasis.opendocument.spreadsheet content.xml', a.ods, application/vnd.oasis.opendocument.spreadsheet"})
    void anOfficeFileIsNotJustAZipAndAZipIsNoOfficeFile(String entries, String name, String mediaType) throws IOException {
        Path path = folder.resolve("zip");
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(path))) {
            for (String entry : entries.split(" ")) {
                String[] parts = entry.split("=");
                zip.putNextEntry(new ZipEntry(parts[0]));
                zip.write((parts.length > 1 ? parts[1] : "x").getBytes(StandardCharsets.US_ASCII));
            }
        }
        assertThat(new ContentLook().mediaType(path, name)).isEqualTo(mediaType);
    }

    @ParameterizedTest(name = "{0} holding “{1}”: {2}")
    @CsvSource({"a.csv, 'a,b', text/csv", "a.txt, hello, text/plain", "a.txt, '<html><body>x</body></html>', text/html", "a.txt, '#!/bin/sh\nrm x', application/x-sh",
        "a.gpx, '<?xml version=\"1.0\"?><gpx xmlns=\"http://www.topografix.com/GPX/1/1\"/>', application/xml", "a.xyz, hello, text/plain"})
    void textIsToldApartByItsName(String name, String content, String mediaType) throws IOException {
        assertThat(look(name, content.getBytes(StandardCharsets.UTF_8))).isIn(mediaType, mediaType.replace("application/xml", "application/gpx+xml"));
    }

    /** Source: PKWARE APPNOTE 4.3.16, the end record. A list of entries of 48 MiB is said to be there; looking into it would hold all of it in memory. */
    @Test
    void aListOfEntriesThatIsTooLongIsNotLookedInto() throws IOException {
        byte[] content = new byte[300];
        System.arraycopy(new byte[] {'P', 'K', 3, 4}, 0, content, 0, 4);
        java.nio.ByteBuffer end = java.nio.ByteBuffer.wrap(content, 278, 22).slice().order(java.nio.ByteOrder.LITTLE_ENDIAN);
        end.putInt(0x06054b50).putInt(0).putShort((short) -1).putShort((short) -1).putInt(48 << 20).putInt(100);
        assertThat(look("a.zip", content)).as("just an archive, not a damaged one").isEqualTo("application/zip");
        end.position(12).putInt(100);
        assertThat(look("a.zip", content)).as("short enough, and damaged").isEqualTo("application/octet-stream");
    }

    private String look(String name, byte[] content) throws IOException {
        return new ContentLook().mediaType(Files.write(folder.resolve("file"), content), name);
    }
}
