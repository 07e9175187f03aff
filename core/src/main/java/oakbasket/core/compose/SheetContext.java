package oakbasket.core.compose;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.function.Predicate;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.reminder.QuietHours;
import org.jspecify.annotations.Nullable;

/**
 * What a sheet is checked against.
 *
 * @param groupSizes how many contacts are in each group, by its name
 * @param closedBecause why nobody works on a date in a calendar; null when people do
 * @param calendars whether there is a calendar with this id
 * @param forms whether there is a blank form with this id
 * @param quiet the hours in which the office writes to nobody
 * @param carried whether mail to an address is carried by the mail server that is set
 * @param changing whether a gathering round is changed, so that its people are not looked at and its deadline may be past
 */
public record SheetContext(Instant now, Map<String, Integer> groupSizes, BiFunction<@Nullable Long, LocalDate, @Nullable String> closedBecause, Predicate<Long> calendars,
        Predicate<Long> forms, QuietHours quiet, Predicate<MailAddress> carried, boolean changing) {

    boolean knows(String group) {
        return groupSizes.containsKey(group);
    }

    /** Whether nobody is in a group that there is. */
    boolean isEmpty(String group) {
        return groupSizes.getOrDefault(group, 1) == 0;
    }
}
