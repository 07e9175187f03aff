package oakbasket.server.decode.work;

import java.io.IOException;
import java.nio.file.Path;

/**
 * Draws one page of a file in the size of a screen, so that the file itself need not be given to whoever may only look.
 *
 * @param as what it is drawn as
 * @param page from 1
 */
public record DrawPage(As as, int page) implements DecodeWork<DrawPage.Drawn> {

    /** What a file is drawn as. */
    public enum As {
        PICTURE,
        PDF,
        TEXT
    }

    /** A page. @param pages how many there are; 1 of what has none */
    public record Drawn(byte[] png, int pages) {
    }

    @Override
    public Drawn work(Path file) throws IOException {
        return switch (as) {
            case PICTURE -> Drawing.picture(file);
            case PDF -> Drawing.pdf(file, page);
            case TEXT -> TextDrawing.page(file, page);
        };
    }

    @Override
    public Class<Drawn> answers() {
        return Drawn.class;
    }
}
