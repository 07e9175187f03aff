package oakbasket.core.standing;

import java.time.Instant;
import java.util.List;
import oakbasket.core.deadline.DeadlineTerms;
import oakbasket.core.deadline.Timeliness;
import org.jspecify.annotations.Nullable;

/**
 * One basket as the rules judge it at one instant.
 *
 * @param progress how far it has come
 * @param timeliness how it stands against its effective deadline
 * @param waived whether the coordinator excused the whole basket
 * @param finishedAt when the last required item became satisfied; null while unfinished
 */
public record BasketStanding(Progress progress, Timeliness timeliness, boolean waived, @Nullable Instant finishedAt) {

    /**
     * What is known of a basket besides its items.
     *
     * @param askedAt when the invitation went or the link was handed over; null when neither
     * @param openedAt when the sender first saw the page; null when never
     * @param waivedAt when everything was excused; null when not
     */
    public record Story(@Nullable Instant askedAt, @Nullable Instant openedAt, @Nullable Instant waivedAt) {
    }

    /**
     * Applies the rules of basket standing. Where no item is required, a basket is finished once anything has come; where none is owed at all, from
     * the beginning.
     */
    public static BasketStanding of(Story story, List<ItemState> items, DeadlineTerms terms, Instant now) {
        boolean anyRequired = false;
        boolean allSatisfied = true;
        boolean allSettled = true;
        boolean anything = false;
        Instant finished = null;
        for (ItemState item : items) {
            anything |= item.files() > 0 || item.standing() == ItemStanding.RETURNED;
            anyRequired |= item.required();
            if (item.required()) {
                allSatisfied &= item.standing().satisfied();
                allSettled &= item.standing().settled();
                finished = latest(finished, item.satisfiedAt());
            }
        }
        if (!anyRequired) {
            allSatisfied = items.stream().anyMatch(item -> item.standing().satisfied());
            allSettled = allSatisfied && items.stream().allMatch(item -> !item.standing().satisfied() || item.standing().settled());
            finished = items.stream().map(ItemState::satisfiedAt).filter(at -> at != null).min(Instant::compareTo).orElse(null);
        }
        if (!items.isEmpty() && items.stream().allMatch(item -> item.standing() == ItemStanding.NOT_OWED)) {
            allSatisfied = true;
            allSettled = true;
            finished = story.askedAt() == null ? now : story.askedAt();
        }
        if (story.waivedAt() != null && !allSatisfied) {
            allSatisfied = true;
            allSettled = true;
            finished = story.waivedAt();
        }
        Progress progress = allSatisfied ? (allSettled ? Progress.CHECKED : Progress.COMPLETE)
                : anything ? Progress.PART
                : story.openedAt() != null ? Progress.OPENED
                : story.askedAt() != null ? Progress.ASKED : Progress.NOT_ASKED;
        Instant finishedAt = allSatisfied ? finished : null;
        return new BasketStanding(progress, Timeliness.of(terms, finishedAt, now), story.waivedAt() != null, finishedAt);
    }

    private static @Nullable Instant latest(@Nullable Instant one, @Nullable Instant other) {
        return one == null || other != null && other.isAfter(one) ? other : one;
    }
}
