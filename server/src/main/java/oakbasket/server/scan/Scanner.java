package oakbasket.server.scan;

import java.io.IOException;
import java.nio.file.Path;

/** Looks for malware in files. */
public interface Scanner {

    /**
     * Asks about a file. A scanner that is away, hangs or talks nonsense makes a file unchecked, never clean, and never an error.
     *
     * @throws IOException only when the file itself cannot be read
     */
    Scanned scan(Path file) throws IOException;
}
