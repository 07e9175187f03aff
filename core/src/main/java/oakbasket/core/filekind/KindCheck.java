package oakbasket.core.filekind;

import java.util.Arrays;
import java.util.Set;

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
        PROGRAM
    }

    private static final Set<String> PROGRAM_TYPES = Set.of("application/x-msdownload", "application/x-dosexec",
            "application/vnd.microsoft.portable-executable", "application/x-executable", "application/x-elf", "application/x-sharedlib",
            "application/x-mach-o", "application/x-mach-o-executable", "application/x-sh", "application/x-bat", "application/java-archive",
            "application/x-ms-installer", "application/x-object", "application/x-ms-shortcut", "application/java-vm");
    private static final Set<String> PROGRAM_ENDINGS = Set.of("exe", "com", "scr", "pif", "bat", "cmd", "msi", "dll", "vbs", "vbe", "js",
            "jse", "wsf", "wsh", "ps1", "jar", "lnk", "hta", "cpl", "reg", "sh", "elf", "app", "scf", "url");

    private KindCheck() {
    }

    /** Judges by the name alone, before any byte has come. An item without kinds takes any. */
    public static Verdict byName(Set<FileKind> wanted, String fileName) {
        if (PROGRAM_ENDINGS.contains(FileKind.endingOf(fileName))) {
            return Verdict.PROGRAM;
        }
        return wanted.isEmpty() || wanted.stream().anyMatch(kind -> kind.named(fileName)) ? Verdict.ACCEPTED : Verdict.KIND_NOT_WANTED;
    }

    /**
     * Judges by the media type that the content shows, together with the name.
     *
     * @param mediaType as detected from content, such as {@code application/pdf}; {@code application/octet-stream} when unknown
     */
    public static Verdict byContent(Set<FileKind> wanted, String fileName, String mediaType) {
        if (PROGRAM_TYPES.contains(mediaType)) {
            return Verdict.PROGRAM;
        }
        Verdict byName = byName(wanted, fileName);
        if (byName != Verdict.ACCEPTED) {
            return byName;
        }
        boolean honest = Arrays.stream(FileKind.values())
                .filter(kind -> kind.named(fileName))
                .allMatch(kind -> kind.holds(mediaType) || looseText(kind, mediaType));
        return honest ? Verdict.ACCEPTED : Verdict.DISGUISED;
    }

    /** Tables, notes and tracks are text; content alone often cannot tell more than "text" or "XML". */
    private static boolean looseText(FileKind kind, String mediaType) {
        boolean textual = mediaType.equals("text/plain") || mediaType.startsWith("text/x-") || mediaType.startsWith("message/");
        return switch (kind) {
            case SPREADSHEET, DOCUMENT -> textual;
            case TRACK -> textual || mediaType.equals("application/xml") || mediaType.equals("application/json");
            case PDF, IMAGE, ARCHIVE, SOUND_OR_FILM -> false;
        };
    }
}
