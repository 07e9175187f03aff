package oakbasket.core.standing;

import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import oakbasket.core.deadline.Timeliness;

/**
 * One basket among the others of its round: the one place that says who owes, who is overdue, to whom a link is still to be handed over, and which items are
 * owed. Whatever counts, lists, writes or shows asks here.
 *
 * @param standing as the rules judge the basket
 * @param items as the rules judge its items, in the order of the checklist
 * @param walkIn whether this person was not asked but came through an open link
 * @param paused whether nobody chases it for now
 * @param removed whether it was taken out of the round
 */
public record BasketView(BasketStanding standing, List<ItemState> items, boolean walkIn, boolean paused, boolean removed) {

    /** Whether it stands in the denominator. */
    public boolean asked() {
        return !removed && !walkIn && !standing.waived();
    }

    /** Whether nothing required is missing. */
    public boolean finished() {
        return standing.progress().finished();
    }

    /** Whether something required is missing of somebody who was asked. */
    public boolean owes() {
        return asked() && !finished();
    }

    /** Whether it owes after grace and is chased; who is not chased is not overdue. */
    public boolean overdue() {
        return owes() && !paused && standing.timeliness().state() == Timeliness.State.OVERDUE;
    }

    /** Whether neither an invitation was sent nor the link handed over. */
    public boolean toHandOver() {
        return asked() && standing.progress() == Progress.NOT_ASKED;
    }

    /** How many files count. */
    public int files() {
        return items.stream().mapToInt(ItemState::files).sum();
    }

    /** How many files wait for review. */
    public int toCheck() {
        return items.stream().mapToInt(ItemState::toCheck).sum();
    }

    /** How many files are kept apart. */
    public int claimed() {
        return items.stream().mapToInt(ItemState::claimed).sum();
    }

    /** Every list it belongs to. */
    public Set<BasketList> lists() {
        if (removed) {
            return EnumSet.of(BasketList.REMOVED);
        }
        Set<BasketList> lists = EnumSet.of(BasketList.EVERYBODY);
        add(lists, asked(), BasketList.ASKED);
        add(lists, owes(), BasketList.OWES);
        add(lists, overdue(), BasketList.OVERDUE);
        add(lists, toCheck() > 0, BasketList.TO_CHECK);
        add(lists, claimed() > 0, BasketList.CLAIMED);
        add(lists, asked() && (standing.progress() == Progress.NOT_ASKED || standing.progress() == Progress.ASKED), BasketList.NEVER_OPENED);
        add(lists, asked() && finished(), BasketList.COMPLETE);
        add(lists, files() > 0, BasketList.SENT);
        add(lists, standing.waived() && !walkIn, BasketList.WAIVED);
        add(lists, walkIn, BasketList.WALK_INS);
        add(lists, owes() && paused, BasketList.PAUSED);
        add(lists, toHandOver(), BasketList.HAND_OVER);
        return lists;
    }

    /** Its items as they are shown, in the order of the checklist. */
    public List<Tile> tiles(Instant graceEnd, Instant now) {
        List<Tile> tiles = new ArrayList<>(items.size());
        for (ItemState item : items) {
            boolean satisfied = item.standing().satisfied();
            boolean late = satisfied && item.standing() != ItemStanding.WAIVED && item.satisfiedAt() != null && item.satisfiedAt().isAfter(graceEnd);
            boolean overdue = !satisfied && item.required() && !standing.waived() && !paused && now.isAfter(graceEnd);
            ItemStanding shown = standing.waived() && !satisfied && item.standing() != ItemStanding.NOT_OWED ? ItemStanding.WAIVED : item.standing();
            tiles.add(new Tile(shown, item.required(), late, overdue, item.files()));
        }
        return tiles;
    }

    private static void add(Set<BasketList> lists, boolean belongs, BasketList list) {
        if (belongs) {
            lists.add(list);
        }
    }
}
