package oakbasket.core.filekind;

import java.util.Arrays;
import java.util.Set;
import oakbasket.core.naming.SafeName;

/**
 * Decides whether a file may come in for an item, by name first and by content once the bytes are known.
 * A file whose content and name disagree about the kind hides what it is and is refused even where any kind is accepted.
 */
public final class KindCheck {

    /** What was decided. */
    public enum Verdict {
        ACCEPTED,
        /** The kind is honest, but the item does not take it. */
        KIND_NOT_WANTED,
        /** Name and content tell different kinds. */
        DISGUISED,
        /** A program or script that a computer would run; never accepted. */
        PROGRAM,
        /** What opens with script or as a disk; accepted only where the round says so. */
        ACTIVE
    }

    /** The media type that stands for any Office Open XML file with macros in it. */
    public static final String MACROS = "application/vnd.ms-office.macroenabled";

    private static final Set<String> PLAIN_TEXT = Set.of("txt", "md", "csv", "tsv");

    private KindCheck() {
    }

    /**
     * Judges by the name alone, before any byte has come. An item without kinds takes any.
     *
     * @param fileName as the sender's device gave it; what is judged is the name that would be written ({@link SafeName})
     * @param takesActive whether the round takes what runs or opens with script
     */
    public static Verdict byName(Set<FileKind> wanted, String fileName, boolean takesActive) {
        String ending = RunsWhenOpened.endingAsWritten(fileName);
        if (RunsWhenOpened.isProgram(ending)) {
            return Verdict.PROGRAM;
        }
        if (!takesActive && RunsWhenOpened.isActive(ending)) {
            return Verdict.ACTIVE;
        }
        String written = SafeName.of(fileName);
        return wanted.isEmpty() || wanted.stream().anyMatch(kind -> kind.named(written)) ? Verdict.ACCEPTED : Verdict.KIND_NOT_WANTED;
    }

    /**
     * Judges by the media type that the content shows, together with the name.
     *
     * @param mediaType as detected from content, such as {@code application/pdf}; {@code application/octet-stream} when unknown
     */
    public static Verdict byContent(Set<FileKind> wanted, String fileName, String mediaType, boolean takesActive) {
        if (RunsWhenOpened.isProgramType(mediaType)) {
            return Verdict.PROGRAM;
        }
        Verdict byName = byName(wanted, fileName, takesActive);
        if (byName != Verdict.ACCEPTED) {
            return byName;
        }
        String written = SafeName.of(fileName);
        boolean honest = Arrays.stream(FileKind.values())
                .filter(kind -> kind.named(written))
                .allMatch(kind -> kind.holds(mediaType) && !textNamedAsOffice(FileKind.endingOf(written), mediaType) || looseText(kind, FileKind.endingOf(written), mediaType));
        if (!honest) {
            return Verdict.DISGUISED;
        }
        return !takesActive && RunsWhenOpened.isActiveType(mediaType) ? Verdict.ACTIVE : Verdict.ACCEPTED;
    }

    private static boolean textNamedAsOffice(String ending, String mediaType) {
        return mediaType.startsWith("text/") && !PLAIN_TEXT.contains(ending);
    }

    /** Tables, notes and tracks are text; content alone often cannot tell more than "text" or "XML". An office file is never text. */
    private static boolean looseText(FileKind kind, String ending, String mediaType) {
        boolean textual = mediaType.equals("text/plain") || mediaType.startsWith("text/x-") || mediaType.startsWith("message/");
        return switch (kind) {
            case SPREADSHEET, DOCUMENT -> textual && PLAIN_TEXT.contains(ending);
            case TRACK -> textual || mediaType.equals("application/xml") || mediaType.equals("application/json");
            case PDF, IMAGE, ARCHIVE, SOUND_OR_FILM -> false;
        };
    }
}
