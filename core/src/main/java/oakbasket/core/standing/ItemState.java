package oakbasket.core.standing;

import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One item of one basket as the rules judge it.
 *
 * @param standing the first standing that applies
 * @param required whether the basket needs it
 * @param files how many files count, that is, were not returned
 * @param toCheck how many files wait for review
 * @param claimed how many files are kept apart until somebody says whose they are; they are in none of the other numbers
 * @param satisfiedAt when enough files had come, or it was waived; null while something is owed
 */
public record ItemState(ItemStanding standing, boolean required, int files, int toCheck, int claimed, @Nullable Instant satisfiedAt) {

    /**
     * Applies the rules of item standing.
     *
     * @param minFiles how many files make the item complete, from 1
     * @param waivedAt when the coordinator excused the item; null when not excused
     * @param files all received files of this item in any order, a (potentially empty) list
     */
    public static ItemState of(boolean required, int minFiles, @Nullable Instant waivedAt, List<FileFact> files) {
        int counting = 0;
        int accepted = 0;
        int toCheck = 0;
        int claimed = 0;
        Instant newestReview = null;
        boolean newestReturns = false;
        Instant newestArrival = null;
        for (FileFact file : files) {
            if (file.keptApart()) {
                claimed++;
                continue;
            }
            counting += file.review() == Review.RETURNED ? 0 : 1;
            accepted += file.review() == Review.ACCEPTED ? 1 : 0;
            toCheck += file.review() == Review.NONE ? 1 : 0;
            newestArrival = later(newestArrival, file.receivedAt());
            Instant reviewed = file.reviewedAt();
            if (reviewed != null && (newestReview == null || reviewed.isAfter(newestReview)
                    || reviewed.equals(newestReview) && file.review() == Review.RETURNED)) {
                newestReview = reviewed;
                newestReturns = file.review() == Review.RETURNED;
            }
        }
        if (waivedAt != null) {
            return new ItemState(ItemStanding.WAIVED, required, counting, toCheck, claimed, waivedAt);
        }
        boolean returned = newestReturns && newestReview != null && newestArrival != null && !newestArrival.isAfter(newestReview);
        ItemStanding standing = returned ? ItemStanding.RETURNED
                : accepted >= minFiles ? ItemStanding.ACCEPTED
                : counting >= minFiles ? ItemStanding.ARRIVED
                : counting > 0 ? ItemStanding.PART
                : ItemStanding.WANTED;
        return new ItemState(standing, required, counting, toCheck, claimed, standing.satisfied() ? enoughAt(minFiles, counting, files) : null);
    }

    /** An item that this person is not asked for. Files that come for it all the same are counted and can be looked at. */
    public static ItemState notOwed(List<FileFact> files) {
        ItemState plain = of(false, 1, null, files);
        return new ItemState(ItemStanding.NOT_OWED, false, plain.files(), plain.toCheck(), plain.claimed(), null);
    }

    /** The arrival that made the files enough: the {@code minFiles}-th oldest of those that count. */
    private static Instant enoughAt(int minFiles, int counting, List<FileFact> files) {
        Instant[] arrivals = new Instant[counting];
        int filled = 0;
        for (FileFact file : files) {
            if (!file.keptApart() && file.review() != Review.RETURNED) {
                arrivals[filled++] = file.receivedAt();
            }
        }
        if (counting > 1) {
            Arrays.sort(arrivals);
        }
        return arrivals[minFiles - 1];
    }

    private static Instant later(@Nullable Instant one, Instant other) {
        return one == null || other.isAfter(one) ? other : one;
    }
}
