package oakbasket.server.decode.work;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * Reads a table of text (RFC 4180).
 *
 * @param charset the name of a character set; empty means it is detected
 * @param delimiter one character; empty means it is detected
 */
public record ReadRows(String charset, String delimiter) implements DecodeWork<ImportedRows> {

    @Override
    public ImportedRows work(Path file) throws IOException {
        return ImportedRows.read(Files.readAllBytes(file), charset, delimiter);
    }

    @Override
    public Class<ImportedRows> answers() {
        return ImportedRows.class;
    }

    /** Each of its cells comes back. */
    @Override
    public int longestAnswer() {
        return 4 * USUAL_ANSWER_BYTES;
    }
}
