package oakbasket.server.scan;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;

/**
 * The scanner that ships with the product. It knows one thing, the EICAR anti-malware test file, also in a ZIP and in a ZIP in a ZIP; it shows how things go
 * and protects from nothing. Source: EICAR, "The Anti-Malware Testfile": the file begins with the 68 characters and is at most 128 long, filled up with white space.
 */
final class StandInScanner implements Scanner {

    static final String NAME = "EICAR-Test-File";

    /** In two pieces, so that no scanner takes this program for the test file. */
    private static final String TEST = "X5O!P%@AP[4\\PZX54(P^)7CC)7}$" + "EICAR-STANDARD-ANTIVIRUS-TEST-FILE!$H+H*";
    private static final int LONGEST = 128;
    private static final int MOST_DEPTH = 3;
    private static final int MOST_ENTRIES = 10_000;
    /** What is inflated of one file at most in bytes; more cannot be looked into and is said to be unchecked. */
    private static final long MOST_BYTES = 1L << 30;

    /** There is too much in it. */
    private static final class TooMuch extends IOException {
        private static final long serialVersionUID = 1;
    }

    /** What was looked at already. */
    private static final class Looked {
        private int entries;
        private long bytes;
    }

    @Override
    public Scanned scan(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            byte[] start = in.readNBytes(LONGEST + 1);
            if (isTest(start)) {
                return Scanned.found(NAME);
            }
            if (start.length < 4 || start[0] != 'P' || start[1] != 'K') {
                return Scanned.CLEAN;
            }
        }
        try (InputStream in = new java.io.BufferedInputStream(Files.newInputStream(file), 1 << 16)) {
            return inZip(in, 1, new Looked()) ? Scanned.found(NAME) : Scanned.CLEAN;
        } catch (TooMuch tooMuch) {
            return Scanned.NOT_TAKEN;
        } catch (java.util.zip.ZipException | java.io.EOFException | IllegalArgumentException damaged) {
            // What cannot be unpacked here cannot be unpacked by anybody; whether it is taken is not for the scanner to say.
            return Scanned.CLEAN;
        }
    }

    private static boolean inZip(InputStream in, int depth, Looked looked) throws IOException {
        ZipInputStream zip = new ZipInputStream(in, StandardCharsets.ISO_8859_1);
        for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
            if (++looked.entries > MOST_ENTRIES) {
                throw new TooMuch();
            }
            java.io.PushbackInputStream content = new java.io.PushbackInputStream(zip, LONGEST + 1);
            byte[] start = content.readNBytes(LONGEST + 1);
            looked.bytes += start.length;
            if (isTest(start)) {
                return true;
            }
            if (depth < MOST_DEPTH && start.length > 4 && start[0] == 'P' && start[1] == 'K' && start[2] == 3) {
                content.unread(start);
                if (inZip(content, depth + 1, looked)) {
                    return true;
                }
            }
            drain(zip, looked);
        }
        return false;
    }

    private static void drain(InputStream in, Looked looked) throws IOException {
        byte[] buffer = new byte[1 << 15];
        for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
            looked.bytes += read;
            if (looked.bytes > MOST_BYTES) {
                throw new TooMuch();
            }
        }
    }

    private static boolean isTest(byte[] start) {
        String text = new String(start, StandardCharsets.ISO_8859_1);
        return text.length() <= LONGEST && text.startsWith(TEST) && text.substring(TEST.length()).chars().allMatch(c -> c == ' ' || c == '\t' || c == '\n' || c == '\r' || c == 26);
    }
}
