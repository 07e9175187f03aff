package oakbasket.server.upload;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Semaphore;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.filekind.KindCheck;
import oakbasket.server.unpack.ZipContents;
import org.apache.tika.Tika;
import org.springframework.stereotype.Component;

/** Tells the media type of a file from its content. */
@Component
public class ContentLook {

    private static final int LOOK_BYTES = 1024;
    private static final String OFFICE = "application/vnd.openxmlformats-officedocument.";

    /**
     * What most files and all common programs begin with, so that they need no long look. Sources: PNG (W3C), JPEG (ISO/IEC 10918-1), GIF89a,
     * PDF (ISO 32000), PE/COFF (Microsoft), ELF (System V ABI), Mach-O (Apple); the rest as tika-core has them.
     */
    private static final Map<String, String> SIGNATURES = Map.of("\u0089PNG\r\n\u001a\n", "image/png", "\u00ff\u00d8\u00ff", "image/jpeg", "GIF89a", "image/gif",
            "%PDF-", "application/pdf", "MZ", "application/x-msdownload", "\u007fELF", "application/x-elf", "\u00ca\u00fe\u00ba\u00be", "application/java-vm",
            "\u00ce\u00fa\u00ed\u00fe", "application/x-mach-o", "\u00cf\u00fa\u00ed\u00fe", "application/x-mach-o", "L\0\0\0\1\24\2\0", "application/x-ms-shortcut");

    private static final int MOST_LOOKS_AT_ONCE = 4;

    private final Tika tika = new Tika();
    private final Semaphore looking = new Semaphore(MOST_LOOKS_AT_ONCE);

    /**
     * The media type that the content shows. The name helps only where content alone cannot tell: among kinds of plain text, and among
     * old office files.
     */
    public String mediaType(Path file, String name) throws IOException {
        byte[] start;
        try (InputStream in = Files.newInputStream(file)) {
            start = in.readNBytes(LOOK_BYTES);
        }
        String head = new String(start, 0, Math.min(start.length, 8), StandardCharsets.ISO_8859_1);
        for (Map.Entry<String, String> signature : SIGNATURES.entrySet()) {
            if (head.startsWith(signature.getKey())) {
                return signature.getValue();
            }
        }
        if (start.length > 4 && head.startsWith("PK\3\4")) {
            return insideZip(file);
        }
        boolean ofAKind = Arrays.stream(FileKind.values()).anyMatch(kind -> kind.named(name));
        if (!ofAKind && !textual(start) && !head.startsWith("ITSF") && !head.startsWith("MSCF")) {
            return "application/octet-stream";
        }
        String shown = tika.detect(start);
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

    /** Whether there is no control character that text does not hold. */
    private static boolean textual(byte[] start) {
        for (byte b : start) {
            if (b >= 0 && b < 32 && b != '\t' && b != '\n' && b != '\r' && b != '\f' && b != 27) {
                return false;
            }
        }
        return true;
    }

    private String insideZip(Path file) throws IOException {
        if (ZipContents.directoryBytes(file) > ZipContents.MOST_DIRECTORY_BYTES) {
            return "application/zip";
        }
        looking.acquireUninterruptibly();
        try (ZipFile zip = ZipContents.opened(file)) {
            return kindOf(zip);
        } catch (java.util.zip.ZipException damaged) {
            return "application/octet-stream";
        } finally {
            looking.release();
        }
    }

    private static String kindOf(ZipFile zip) throws IOException {
        ZipEntry mimetype = zip.getEntry("mimetype");
        if (mimetype != null && mimetype.getSize() < 200) {
            try (InputStream in = zip.getInputStream(mimetype)) {
                String declared = new String(in.readNBytes(200), StandardCharsets.US_ASCII).strip();
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
        if (zip.stream().anyMatch(entry -> entry.getName().toLowerCase(Locale.ROOT).endsWith("vbaproject.bin"))) {
            return KindCheck.MACROS;
        }
        return zip.getEntry("word/document.xml") != null ? OFFICE + "wordprocessingml.document"
                : zip.getEntry("xl/workbook.xml") != null ? OFFICE + "spreadsheetml.sheet" : "application/zip";
    }
}
