package oakbasket.core.reminder;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import oakbasket.core.letter.LetterKind;
import org.jspecify.annotations.Nullable;

/**
 * What the plans of all rounds will send to one person if nothing comes in, by the rules that decide when the time has come: one letter for what falls on one day, the gap between letters kept,
 * and for each letter that will not go the reason.
 */
public final class Forecast {

    /**
     * One basket of the person.
     *
     * @param letters what its plan means, the earliest first
     */
    public record Strand(long basket, Recipient recipient, List<PlannedLetter> letters) {
    }

    /**
     * A letter that will go, or would but for the reason.
     *
     * @param at when it goes; of one that is left out, when it would
     * @param with the basket whose letter takes it along; its own where it goes by itself
     * @param against why it does not go; null when it does
     */
    public record Foreseen(long basket, LetterKind kind, Instant at, Instant step, long with, Recipient.@Nullable Reason against) {
    }

    private record Due(Strand strand, PlannedLetter letter) {
    }

    private Forecast() {
    }

    /**
     * Looks ahead for one person.
     *
     * @param zone the zone of the person, in whose days letters are put together
     * @param last when the last letter went to them; null when none did
     * @param after only letters later than this
     * @param until and not later than this
     */
    public static List<Foreseen> of(List<Strand> strands, ZoneId zone, @Nullable Instant last, Instant after, Instant until) {
        List<Due> due = new ArrayList<>();
        for (Strand strand : strands) {
            for (PlannedLetter letter : strand.letters()) {
                if (letter.at().isAfter(after) && !letter.at().isAfter(until)) {
                    due.add(new Due(strand, letter));
                }
            }
        }
        due.sort(Comparator.comparing(one -> one.letter().at()));
        List<Foreseen> foreseen = new ArrayList<>(due.size());
        boolean[] taken = new boolean[due.size()];
        Instant before = last;
        for (int i = 0; i < due.size(); i++) {
            if (taken[i]) {
                continue;
            }
            Due one = due.get(i);
            Recipient.@Nullable Reason against = against(one, before);
            foreseen.add(new Foreseen(one.strand().basket(), one.letter().kind(), one.letter().at(), one.letter().step(), one.strand().basket(), against));
            if (against == null && strands.size() > 1) {
                alongside(due, taken, i, before, zone, foreseen);
            }
            before = against == null ? one.letter().at() : before;
        }
        return foreseen;
    }

    /** What the letter takes along: what falls on the same moment, and what would be told later on the same day about other baskets. */
    private static void alongside(List<Due> due, boolean[] taken, int first, @Nullable Instant before, ZoneId zone, List<Foreseen> foreseen) {
        Due letter = due.get(first);
        Set<Long> told = new HashSet<>(Set.of(letter.strand().basket()));
        LocalDate day = LocalDate.ofInstant(letter.letter().at(), zone);
        for (int k = first + 1; k < due.size(); k++) {
            Due other = due.get(k);
            if (!LocalDate.ofInstant(other.letter().at(), zone).equals(day)) {
                return;
            }
            if (!taken[k] && against(other, before) == null && told.add(other.strand().basket())) {
                taken[k] = true;
                foreseen.add(new Foreseen(other.strand().basket(), other.letter().kind(), letter.letter().at(), other.letter().step(), letter.strand().basket(), null));
            }
        }
    }

    private static Recipient.@Nullable Reason against(Due due, @Nullable Instant last) {
        return due.letter().against() != null ? due.letter().against() : due.strand().recipient().after(last).against(due.letter().at()).orElse(null);
    }
}
