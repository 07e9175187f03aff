package oakbasket.server.upload;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.apache.tika.Tika;
import org.springframework.stereotype.Component;

/** Tells the media type of a file from its content. */
@Component
class ContentLook {

    private static final int LOOK_BYTES = 64 * 1024;
    private static final String OFFICE = "application/vnd.openxmlformats-officedocument.";

    private final Tika tika = new Tika();

    /**
     * The media type that the content shows. The name helps only where content alone cannot tell: among kinds of plain text, and among
     * old office files.
     */
    String mediaType(Path file, String name) throws IOException {
        byte[] start;
        try (InputStream in = Files.newInputStream(file)) {
            start = in.readNBytes(LOOK_BYTES);
        }
        String shown = tika.detect(start);
        if (start.length > 4 && start[0] == 'P' && start[1] == 'K' && start[2] == 3 && start[3] == 4) {
            return insideZip(file);
        }
        if (shown.equals("application/x-tika-msoffice")) {
            String named = tika.detect(name);
            return named.equals("application/msword") || named.equals("application/vnd.ms-excel") ? named : shown;
        }
        if (shown.equals("text/plain")) {
            String named = tika.detect(name);
            return named.startsWith("text/") && !named.equals("text/html") ? named : shown;
        }
        return shown;
    }

    private static String insideZip(Path file) throws IOException {
        try (ZipFile zip = new ZipFile(file.toFile())) {
            ZipEntry mimetype = zip.getEntry("mimetype");
            if (mimetype != null && mimetype.getSize() < 200) {
                try (InputStream in = zip.getInputStream(mimetype)) {
                    String declared = new String(in.readNBytes(200), java.nio.charset.StandardCharsets.US_ASCII).strip();
                    if (declared.startsWith("application/vnd.oasis.opendocument.")) {
                        return declared;
                    }
                }
            }
            if (zip.getEntry("META-INF/MANIFEST.MF") != null && zip.stream().anyMatch(entry -> entry.getName().endsWith(".class"))) {
                return "application/java-archive";
            }
            if (zip.getEntry("[Content_Types].xml") == null) {
                return "application/zip";
            }
            return zip.getEntry("word/document.xml") != null ? OFFICE + "wordprocessingml.document"
                    : zip.getEntry("xl/workbook.xml") != null ? OFFICE + "spreadsheetml.sheet" : "application/zip";
        } catch (java.util.zip.ZipException damaged) {
            return "application/octet-stream";
        }
    }
}
