package oakbasket.core.standing;

import java.util.EnumMap;
import java.util.Map;
import oakbasket.core.deadline.Timeliness;

/**
 * The totals of a round.
 *
 * @param asked baskets in the denominator: neither waived nor walk-in
 * @param complete how many of those are finished
 * @param percent {@code floor(100 × complete / asked)}, 0 when nobody is asked; 100 only when all are in
 * @param waived baskets excused as a whole
 * @param walkIns baskets of people who were not asked
 * @param paused asked baskets that still owe and are not chased
 * @param byProgress asked baskets per progress, zeros included
 * @param byTimeliness asked baskets per timeliness, zeros included; without those that owe and are not chased, who are neither ahead nor overdue
 * @param files files that count, over all baskets
 * @param senders baskets from which at least one counting file came
 * @param toCheck files that wait for review
 * @param claimed files kept apart until somebody says whose they are, in none of the other numbers
 */
public record RoundCounts(int asked, int complete, int percent, int waived, int walkIns, int paused,
        Map<Progress, Integer> byProgress, Map<Timeliness.State, Integer> byTimeliness, int files, int senders, int toCheck, int claimed) {

    /** Adds up a round; baskets taken out of it enter nothing. */
    public static RoundCounts of(Iterable<BasketView> baskets) {
        Map<BasketList, Integer> lists = zeros(BasketList.class);
        Map<Progress, Integer> byProgress = zeros(Progress.class);
        Map<Timeliness.State, Integer> byTimeliness = zeros(Timeliness.State.class);
        int files = 0;
        int toCheck = 0;
        int claimed = 0;
        for (BasketView basket : baskets) {
            if (basket.removed()) {
                continue;
            }
            basket.lists().forEach(list -> lists.merge(list, 1, Integer::sum));
            files += basket.files();
            toCheck += basket.toCheck();
            claimed += basket.claimed();
            if (basket.asked()) {
                byProgress.merge(basket.standing().progress(), 1, Integer::sum);
                if (!basket.paused() || basket.finished()) {
                    byTimeliness.merge(basket.standing().timeliness().state(), 1, Integer::sum);
                }
            }
        }
        int asked = lists.getOrDefault(BasketList.ASKED, 0);
        int complete = lists.getOrDefault(BasketList.COMPLETE, 0);
        return new RoundCounts(asked, complete, percent(complete, asked), lists.getOrDefault(BasketList.WAIVED, 0), lists.getOrDefault(BasketList.WALK_INS, 0), lists.getOrDefault(BasketList.PAUSED, 0),
                byProgress, byTimeliness, files, lists.getOrDefault(BasketList.SENT, 0), toCheck, claimed);
    }

    /** Whole percent, rounded down; 0 when {@code of} is 0. */
    public static int percent(int part, int of) {
        return of == 0 ? 0 : (int) (100L * part / of);
    }

    private static <E extends Enum<E>> Map<E, Integer> zeros(Class<E> type) {
        Map<E, Integer> map = new EnumMap<>(type);
        for (E value : type.getEnumConstants()) {
            map.put(value, 0);
        }
        return map;
    }
}
