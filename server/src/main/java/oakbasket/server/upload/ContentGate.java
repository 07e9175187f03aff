package oakbasket.server.upload;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Set;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.filekind.KindCheck;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import org.springframework.stereotype.Component;

/** Looks at what whole files hold. */
@Component
class ContentGate {

    private static final Set<FileKind> ARCHIVES = Set.of(FileKind.ARCHIVE);

    private final ContentLook look;

    ContentGate(ContentLook look) {
        this.look = look;
    }

    /**
     * The media type of a file that its item takes.
     *
     * @param archive whether it is an archive to be opened, whose own kind nobody asked for
     * @throws Problem when the content is of a kind that is not accepted
     */
    String accepted(Path whole, String fileName, Round round, Item item, boolean archive) throws IOException {
        String mediaType = look.mediaType(whole, fileName);
        Set<FileKind> kinds = archive ? ARCHIVES : item.spec().kinds();
        KindCheck.Verdict verdict = KindCheck.byContent(kinds, fileName, mediaType, round.takesActive());
        if (archive && verdict == KindCheck.Verdict.DISGUISED && mediaType.equals("application/octet-stream")) {
            throw Problem.refused("archive-unreadable", fileName);
        }
        if (verdict != KindCheck.Verdict.ACCEPTED) {
            throw KindRefusal.of(verdict, fileName, item, mediaType);
        }
        return mediaType;
    }
}
