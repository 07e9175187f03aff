package oakbasket.server.decode.work;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** Reads contacts from vCards (RFC 6350). */
public record ReadCards() implements DecodeWork<CardsFile> {

    @Override
    public CardsFile work(Path file) throws IOException {
        return CardsFile.read(Files.readAllBytes(file));
    }

    @Override
    public Class<CardsFile> answers() {
        return CardsFile.class;
    }

    /** Each of its cards comes back. */
    @Override
    public int longestAnswer() {
        return 4 * USUAL_ANSWER_BYTES;
    }
}
