package oakbasket.core.link;

import java.util.Optional;
import oakbasket.core.fault.Fault;
import oakbasket.core.round.ItemSpec;
import org.jspecify.annotations.Nullable;

/**
 * How much may come through one link; null means that this link sets no limit of its own.
 *
 * @param uses how many submissions bring something
 * @param files how many files come in all
 * @param fileBytes the size of one file
 * @param totalBytes the size of all files together
 */
public record LinkLimits(@Nullable Integer uses, @Nullable Integer files, @Nullable Long fileBytes, @Nullable Long totalBytes) {

    /** No limits. */
    public static final LinkLimits NONE = new LinkLimits(null, null, null, null);
    /** The largest number of submissions or files that can be set. */
    public static final int MOST = 1_000_000;
    /** The largest size of all files that can be set: 8 TiB. */
    public static final long MOST_BYTES = 8L << 40;

    /** What a file meets that would be one too many. */
    public enum Reached { NOTHING, FILE_SIZE, FILES, TOTAL_SIZE }

    /**
     * What a further file would meet.
     *
     * @param use what came and is on its way already
     * @param bytes the size of the file
     */
    public Reached by(LinkUse use, long bytes) {
        if (fileBytes != null && bytes > fileBytes) {
            return Reached.FILE_SIZE;
        }
        if (files != null && use.files() >= files) {
            return Reached.FILES;
        }
        return totalBytes != null && bytes > totalBytes - use.bytes() ? Reached.TOTAL_SIZE : Reached.NOTHING;
    }

    /** Whether files have to be counted before another one begins. */
    public boolean counted() {
        return files != null || totalBytes != null;
    }

    /** What keeps these limits from being set; empty when nothing does. */
    public Optional<Fault> fault() {
        if (outside(uses, MOST)) {
            return Optional.of(Fault.of("uses", "link-number", MOST));
        }
        if (outside(files, MOST)) {
            return Optional.of(Fault.of("files", "link-number", MOST));
        }
        if (outside(fileBytes, ItemSpec.MOST_BYTES)) {
            return Optional.of(Fault.of("fileMebibytes", "link-number", ItemSpec.MOST_BYTES >> 20));
        }
        if (outside(totalBytes, MOST_BYTES)) {
            return Optional.of(Fault.of("totalMebibytes", "link-number", MOST_BYTES >> 20));
        }
        return fileBytes != null && totalBytes != null && fileBytes > totalBytes ? Optional.of(Fault.of("fileMebibytes", "link-file-over-total")) : Optional.empty();
    }

    private static boolean outside(@Nullable Number number, long most) {
        return number != null && (number.longValue() < 1 || number.longValue() > most);
    }
}
