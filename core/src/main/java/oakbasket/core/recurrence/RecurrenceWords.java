package oakbasket.core.recurrence;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.Month;
import java.time.format.DateTimeFormatter;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.dmfs.rfc5545.DateTime;
import org.dmfs.rfc5545.Weekday;
import org.dmfs.rfc5545.recur.RecurrenceRule;
import org.dmfs.rfc5545.recur.RecurrenceRule.Part;

/** Says a recurrence rule in plain words. */
final class RecurrenceWords {

    private static final Set<DayOfWeek> WORKING = EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY);
    private static final Set<DayOfWeek> WEEKEND = EnumSet.of(DayOfWeek.SATURDAY, DayOfWeek.SUNDAY);

    private RecurrenceWords() {
    }

    static String of(RecurrenceRule rule) {
        String days = days(rule);
        String span = span(rule);
        String words = switch (rule.getFreq()) {
            case DAILY, WEEKLY -> span + (days.isEmpty() ? "" : " on " + days);
            default -> days.isEmpty() ? span : (days.startsWith("every ") ? days : "the " + days) + (days.startsWith("every ") ? " in " : " of ") + span;
        };
        return words + months(rule) + end(rule);
    }

    private static String span(RecurrenceRule rule) {
        String unit = switch (rule.getFreq()) {
            case DAILY -> "day";
            case WEEKLY -> "week";
            case MONTHLY -> "month";
            default -> "year";
        };
        int interval = rule.getInterval();
        boolean each = rule.getFreq().name().matches("MONTHLY|YEARLY") && !days(rule).isEmpty();
        return interval == 1 ? (each ? "each " : "every ") + unit : interval == 2 ? "every second " + unit : "every " + interval + " " + unit + "s";
    }

    /** The days within the span; empty when the start alone gives them. */
    private static String days(RecurrenceRule rule) {
        List<String> parts = new ArrayList<>();
        List<RecurrenceRule.WeekdayNum> byDay = rule.getByDayPart() == null ? List.of() : rule.getByDayPart();
        List<Integer> positions = numbers(rule, Part.BYSETPOS);
        if (!byDay.isEmpty()) {
            boolean counted = byDay.stream().anyMatch(day -> day.pos != 0);
            boolean ofMonth = rule.getFreq().name().matches("MONTHLY|YEARLY");
            if (counted) {
                parts.add(list(byDay.stream().map(day -> (day.pos == 0 ? "every " : ordinal(day.pos) + " ") + name(day.weekday)).toList()));
            } else if (!positions.isEmpty() && ofMonth) {
                return list(positions.stream().map(RecurrenceWords::ordinal).toList()) + " " + dayNames(byDay, "or");
            } else {
                parts.add((ofMonth ? "every " : "") + dayNames(byDay, "and"));
            }
        }
        List<Integer> monthDays = numbers(rule, Part.BYMONTHDAY);
        if (!monthDays.isEmpty()) {
            List<String> named = monthDays.stream().map(day -> day > 0 ? ordinal(day) : ordinal(day) + " day").toList();
            parts.add(list(named) + (parts.isEmpty() ? "" : ", where both agree,"));
        }
        numbers(rule, Part.BYYEARDAY).forEach(day -> parts.add(ordinal(day) + " day"));
        List<Integer> weeks = numbers(rule, Part.BYWEEKNO);
        if (!weeks.isEmpty()) {
            parts.add("week " + list(weeks.stream().map(String::valueOf).toList()));
        }
        String all = String.join(" and ", parts);
        return positions.isEmpty() || all.isEmpty() ? all : list(positions.stream().map(RecurrenceWords::ordinal).toList()) + " of: " + all;
    }

    private static String dayNames(List<RecurrenceRule.WeekdayNum> byDay, String joint) {
        Set<DayOfWeek> days = EnumSet.noneOf(DayOfWeek.class);
        byDay.forEach(day -> days.add(day(day.weekday)));
        if (days.equals(WORKING)) {
            return "working day";
        }
        if (days.size() == 7) {
            return "day";
        }
        return days.equals(WEEKEND) ? "weekend day" : list(byDay.stream().map(day -> name(day.weekday)).toList(), joint);
    }

    private static String months(RecurrenceRule rule) {
        List<String> months = numbers(rule, Part.BYMONTH).stream().map(month -> Month.of(month + 1).getDisplayName(TextStyle.FULL, Locale.ENGLISH)).toList();
        return months.isEmpty() ? "" : ", in " + list(months);
    }

    private static String end(RecurrenceRule rule) {
        if (rule.getCount() != null) {
            return rule.getCount() == 1 ? ", once" : ", " + rule.getCount() + " times";
        }
        DateTime until = rule.getUntil();
        return until == null ? "" : ", until " + DateTimeFormatter.ofPattern("d MMMM yyyy", Locale.ENGLISH)
                .format(LocalDate.of(until.getYear(), until.getMonth() + 1, until.getDayOfMonth()));
    }

    private static List<Integer> numbers(RecurrenceRule rule, Part part) {
        List<Integer> numbers = rule.getByPart(part);
        return numbers == null ? List.of() : numbers;
    }

    /** “first”, “22nd”, “last”, “third-to-last”. */
    private static String ordinal(int number) {
        if (number == -1) {
            return "last";
        }
        return number < 0 ? plainOrdinal(-number) + "-to-last" : plainOrdinal(number);
    }

    private static String plainOrdinal(int number) {
        return switch (number) {
            case 1 -> "first";
            case 2 -> "second";
            case 3 -> "third";
            case 4 -> "fourth";
            case 5 -> "fifth";
            default -> number + (number % 100 >= 11 && number % 100 <= 13 ? "th" : number % 10 == 1 ? "st" : number % 10 == 2 ? "nd" : number % 10 == 3 ? "rd" : "th");
        };
    }

    private static DayOfWeek day(Weekday weekday) {
        return switch (weekday) {
            case MO -> DayOfWeek.MONDAY;
            case TU -> DayOfWeek.TUESDAY;
            case WE -> DayOfWeek.WEDNESDAY;
            case TH -> DayOfWeek.THURSDAY;
            case FR -> DayOfWeek.FRIDAY;
            case SA -> DayOfWeek.SATURDAY;
            case SU -> DayOfWeek.SUNDAY;
        };
    }

    private static String name(Weekday weekday) {
        return day(weekday).getDisplayName(TextStyle.FULL, Locale.ENGLISH);
    }

    private static String list(List<String> words) {
        return list(words, "and");
    }

    private static String list(List<String> words, String joint) {
        return words.size() < 2 ? String.join("", words) : String.join(", ", words.subList(0, words.size() - 1)) + " " + joint + " " + words.get(words.size() - 1);
    }
}
