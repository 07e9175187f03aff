/** Calendars of working days: weekends, public holidays from a kept library, own closing days, import of iCalendar files. */
@NullMarked
package oakbasket.server.calendar;

import org.jspecify.annotations.NullMarked;
