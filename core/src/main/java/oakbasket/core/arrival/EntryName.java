package oakbasket.core.arrival;

import java.util.Arrays;
import java.util.List;
import java.util.Set;

/**
 * The name of an entry of an archive, which somebody hostile may have written (OWASP File Upload Cheat Sheet, "Zip Slip"). Nothing is mended in it: a name
 * that points anywhere but into its own archive refuses the entry.
 */
public final class EntryName {

    /** Folders an entry may lie in, one in another. */
    public static final int MOST_FOLDERS = 16;

    /** What a name says of its entry. */
    public enum Verdict {
        FILE,
        /** A folder, or what an operating system puts into every archive (common practice, no source): nothing that somebody sent. */
        NOTHING_SENT,
        /** It points out of the archive. */
        POINTS_OUTSIDE,
        /** More than {@value EntryName#MOST_FOLDERS} folders deep. */
        TOO_DEEP
    }

    private static final Set<String> LEFT_BY_SYSTEMS = Set.of(".DS_Store", "Thumbs.db", "desktop.ini");

    private EntryName() {
    }

    /** Judges a name as it stands in the archive. */
    public static Verdict judge(String name) {
        List<String> segments = Arrays.asList(name.split("[/\\\\]", -1));
        if (name.startsWith("/") || name.startsWith("\\") || name.matches("[A-Za-z]:.*") || name.indexOf('\0') >= 0
                || segments.stream().anyMatch(segment -> segment.strip().matches("\\.{2,}"))) {
            return Verdict.POINTS_OUTSIDE;
        }
        if (name.isBlank() || segments.get(segments.size() - 1).isBlank() || segments.get(0).equals("__MACOSX") || LEFT_BY_SYSTEMS.contains(segments.get(segments.size() - 1))) {
            return Verdict.NOTHING_SENT;
        }
        return segments.size() - 1 > MOST_FOLDERS ? Verdict.TOO_DEEP : Verdict.FILE;
    }
}
