package oakbasket.server.exchangepage;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Objects;
import oakbasket.server.decode.Decoders;
import oakbasket.server.decode.work.DrawPage;
import oakbasket.server.parcel.ParcelFile;
import oakbasket.server.problem.Problem;
import org.springframework.stereotype.Component;

/** Draws files for those who may see them and not take them away: a picture of each page, in the size of a screen. Neither the file nor its characters ever leave. */
@Component
class DrawnFile {

    private static final long LARGEST = 64L << 20;

    private final Decoders decoders;

    DrawnFile(Decoders decoders) {
        this.decoders = decoders;
    }

    /** How a file of a media type, which was found by its content, can be looked at. */
    static ExchangePage.Look look(String mediaType) {
        return switch (mediaType) {
            case "image/png", "image/jpeg", "image/gif" -> ExchangePage.Look.PICTURE;
            case "application/pdf" -> ExchangePage.Look.PDF;
            default -> mediaType.startsWith("text/") || mediaType.endsWith("xml") || mediaType.endsWith("json") ? ExchangePage.Look.TEXT : ExchangePage.Look.NONE;
        };
    }

    /**
     * Draws a page.
     *
     * @param page from 1
     * @throws Problem with status 422 when it cannot be drawn, 503 when too many are drawn at this moment
     */
    DrawPage.Drawn draw(Path path, ParcelFile file, int page) {
        DrawPage.As as = switch (look(file.mediaType())) {
            case PICTURE -> DrawPage.As.PICTURE;
            case PDF -> DrawPage.As.PDF;
            case TEXT -> DrawPage.As.TEXT;
            case NONE -> throw Problem.refused("no-preview");
        };
        try {
            if (as != DrawPage.As.TEXT && Files.size(path) > LARGEST) {
                throw Problem.refused("no-preview");
            }
        } catch (IOException gone) {
            throw Problem.refused("no-preview");
        }
        return decoders.ask(new DrawPage(as, page), path, Objects.requireNonNull(file.sha256()), Decoders.Lane.OUTSIDE).orElseThrow(() -> Problem.refused("no-preview"));
    }
}
