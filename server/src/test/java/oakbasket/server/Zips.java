package oakbasket.server;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** ZIP files for tests. */
final class Zips {

    /** The EICAR anti-malware test file (EICAR, "The Anti-Malware Testfile"), in two pieces so that no scanner takes this program for it. */
    static final byte[] EICAR = ("X5O!P%@AP[4\\PZX54(P^)7CC)7}$" + "EICAR-STANDARD-ANTIVIRUS-TEST-FILE!$H+H*").getBytes(StandardCharsets.US_ASCII);

    private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    private final ZipOutputStream zip = new ZipOutputStream(bytes, StandardCharsets.UTF_8);

    Zips with(String name, byte[] content) {
        try {
            zip.putNextEntry(new ZipEntry(name));
            zip.write(content);
            zip.closeEntry();
            return this;
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    byte[] bytes() {
        try {
            zip.close();
            return bytes.toByteArray();
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }
}
