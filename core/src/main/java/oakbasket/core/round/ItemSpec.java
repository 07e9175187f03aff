package oakbasket.core.round;

import java.util.Set;
import oakbasket.core.arrival.ArrivalPlan;
import oakbasket.core.filekind.FileKind;

/**
 * One document wanted.
 *
 * @param title what it is called on every screen; not blank, at most 200 characters
 * @param help text for the sender; empty when there is none
 * @param required whether a basket can be complete without it
 * @param minFiles how many files make it complete, from 1
 * @param maxFiles how many files it takes at most, from {@code minFiles} to {@value #MOST_FILES}
 * @param kinds the accepted kinds; empty means any kind
 * @param maxBytes the largest accepted file in bytes, from 1 to {@value #MOST_BYTES}
 * @param arrival what is done with files as they arrive
 */
public record ItemSpec(String title, String help, boolean required, int minFiles, int maxFiles,
        Set<FileKind> kinds, long maxBytes, ArrivalPlan arrival) {

    /** The most files one item takes. */
    public static final int MOST_FILES = 5_000;
    /** The largest size limit in bytes: 1 TiB. */
    public static final long MOST_BYTES = 1L << 40;
    /** The longest title in characters. */
    public static final int LONGEST_TITLE = 200;

    public ItemSpec {
        if (title.isBlank() || title.length() > LONGEST_TITLE) {
            throw new IllegalArgumentException("An item needs a title of 1 to " + LONGEST_TITLE + " characters");
        }
        if (minFiles < 1 || maxFiles < minFiles || maxFiles > MOST_FILES) {
            throw new IllegalArgumentException(
                    "Files per item go from 1 to %d, the least not above the most; this item has %d to %d"
                            .formatted(MOST_FILES, minFiles, maxFiles));
        }
        if (maxBytes < 1 || maxBytes > MOST_BYTES) {
            throw new IllegalArgumentException("A size limit lies between 1 and " + MOST_BYTES + " bytes, not " + maxBytes);
        }
        kinds = Set.copyOf(kinds);
    }

    /** Whether a file of this name is an archive that is opened on arrival. */
    public boolean opens(String fileName) {
        return arrival.archives().open(fileName);
    }

    /** The most bytes an archive may have, and may hold, that is opened on arrival: as much as the files it stands for. */
    public long mostArchiveBytes() {
        return Math.min(MOST_BYTES, maxBytes * maxFiles);
    }
}
