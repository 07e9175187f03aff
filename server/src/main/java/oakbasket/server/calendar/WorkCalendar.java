package oakbasket.server.calendar;

import java.time.DayOfWeek;
import java.util.List;
import java.util.Set;

/**
 * A calendar of working days.
 *
 * @param country whose public holidays are closed days, as ISO 3166-1 alpha-2 in lower case; empty means none
 * @param region a part of the country with holidays of its own; empty means none
 * @param isDefault whether rounds use it that name none
 * @param closingDays own closing days, in order
 */
public record WorkCalendar(long id, int version, String name, Set<DayOfWeek> weekend, String country, String region, boolean isDefault, List<ClosingDay> closingDays) {
}
