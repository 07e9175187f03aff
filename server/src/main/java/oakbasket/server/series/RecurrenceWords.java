package oakbasket.server.series;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.Month;
import java.time.format.DateTimeFormatter;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import oakbasket.core.recurrence.Recurrence;
import oakbasket.server.words.Words;
import org.dmfs.rfc5545.DateTime;
import org.dmfs.rfc5545.Weekday;
import org.dmfs.rfc5545.recur.Freq;
import org.dmfs.rfc5545.recur.RecurrenceRule;
import org.dmfs.rfc5545.recur.RecurrenceRule.Part;

/** Says a recurrence rule in plain words, such as “the last working day of each month”. The words stand in the message files under {@code recurrence}. */
final class RecurrenceWords {

    private static final Set<DayOfWeek> WORKING = EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY);
    private static final Set<DayOfWeek> WEEKEND = EnumSet.of(DayOfWeek.SATURDAY, DayOfWeek.SUNDAY);
    /** Ordinals up to this one have a word of their own. */
    private static final int LAST_NAMED_ORDINAL = 5;

    private final Words words;

    RecurrenceWords(Words words) {
        this.words = words;
    }

    String of(Recurrence recurrence) {
        RecurrenceRule rule = recurrence.parts();
        String days = days(rule);
        boolean within = ofMonthOrYear(rule);
        String span = say((within && !days.isEmpty() ? "each." : "every.") + rule.getFreq(), rule.getInterval());
        String frame = days.isEmpty() ? "plain" : !within ? "on" : everyDay(rule) ? "every-in" : "the-of";
        return say("frame." + frame, span, days) + months(rule) + end(rule);
    }

    /** The days within the span; empty when the start alone gives them. */
    private String days(RecurrenceRule rule) {
        List<RecurrenceRule.WeekdayNum> byDay = rule.getByDayPart() == null ? List.of() : rule.getByDayPart();
        List<Integer> positions = numbers(rule, Part.BYSETPOS);
        if (!byDay.isEmpty() && !counted(byDay) && !positions.isEmpty() && ofMonthOrYear(rule)) {
            return say("nth", ordinals(positions), dayNames(byDay, "or"));
        }
        List<String> parts = new ArrayList<>();
        if (counted(byDay)) {
            parts.add(list(byDay.stream().map(day -> day.pos == 0 ? say("every-day", name(day.weekday)) : say("nth", ordinal(day.pos), name(day.weekday))).toList(), "and"));
        } else if (!byDay.isEmpty()) {
            parts.add(ofMonthOrYear(rule) ? say("every-day", dayNames(byDay, "and")) : dayNames(byDay, "and"));
        }
        List<Integer> monthDays = numbers(rule, Part.BYMONTHDAY);
        if (!monthDays.isEmpty()) {
            String named = list(monthDays.stream().map(day -> day > 0 ? ordinal(day) : say("month-day", ordinal(day))).toList(), "and");
            parts.add(parts.isEmpty() ? named : say("both-agree", named));
        }
        numbers(rule, Part.BYYEARDAY).forEach(day -> parts.add(say("month-day", ordinal(day))));
        List<Integer> weeks = numbers(rule, Part.BYWEEKNO);
        if (!weeks.isEmpty()) {
            parts.add(say("week", list(weeks.stream().map(String::valueOf).toList(), "and")));
        }
        String all = parts.isEmpty() ? "" : parts.stream().reduce((one, other) -> say("list.and", one, other)).orElseThrow();
        return positions.isEmpty() || all.isEmpty() ? all : say("positions-of", ordinals(positions), all);
    }

    /** Whether the days begin with an “every” of their own. */
    private static boolean everyDay(RecurrenceRule rule) {
        List<RecurrenceRule.WeekdayNum> byDay = rule.getByDayPart();
        return byDay != null && !byDay.isEmpty() && byDay.get(0).pos == 0 && numbers(rule, Part.BYSETPOS).isEmpty();
    }

    private static boolean counted(List<RecurrenceRule.WeekdayNum> byDay) {
        return byDay.stream().anyMatch(day -> day.pos != 0);
    }

    private static boolean ofMonthOrYear(RecurrenceRule rule) {
        return rule.getFreq() == Freq.MONTHLY || rule.getFreq() == Freq.YEARLY;
    }

    private String dayNames(List<RecurrenceRule.WeekdayNum> byDay, String joint) {
        Set<DayOfWeek> days = EnumSet.noneOf(DayOfWeek.class);
        byDay.forEach(day -> days.add(day(day.weekday)));
        if (days.equals(WORKING) || days.equals(WEEKEND) || days.size() == DayOfWeek.values().length) {
            return say(days.equals(WORKING) ? "working-day" : days.equals(WEEKEND) ? "weekend-day" : "any-day");
        }
        return list(byDay.stream().map(day -> name(day.weekday)).toList(), joint);
    }

    private String months(RecurrenceRule rule) {
        List<String> months = numbers(rule, Part.BYMONTH).stream().map(month -> Month.of(month + 1).getDisplayName(TextStyle.FULL, words.language())).toList();
        return months.isEmpty() ? "" : say("in-months", list(months, "and"));
    }

    private String end(RecurrenceRule rule) {
        if (rule.getCount() != null) {
            return say("times", rule.getCount());
        }
        DateTime until = rule.getUntil();
        return until == null ? "" : say("until", DateTimeFormatter.ofPattern(say("date"), words.language())
                .format(LocalDate.of(until.getYear(), until.getMonth() + 1, until.getDayOfMonth())));
    }

    private static List<Integer> numbers(RecurrenceRule rule, Part part) {
        List<Integer> numbers = rule.getByPart(part);
        return numbers == null ? List.of() : numbers;
    }

    private String ordinals(List<Integer> numbers) {
        return list(numbers.stream().map(this::ordinal).toList(), "and");
    }

    /** “first”, “22nd”, “last”, “third-to-last”. */
    private String ordinal(int number) {
        if (number == -1) {
            return say("last");
        }
        return number < 0 ? say("from-last", plainOrdinal(-number)) : plainOrdinal(number);
    }

    private String plainOrdinal(int number) {
        return number <= LAST_NAMED_ORDINAL ? say("ordinal." + number) : say("ordinal." + category(number), number);
    }

    /** How an ordinal ends; the categories and the rule are those of the Unicode CLDR for English. */
    private static String category(int number) {
        boolean teens = number % 100 >= 11 && number % 100 <= 13;
        return teens || number % 10 == 0 || number % 10 > 3 ? "other" : number % 10 == 1 ? "one" : number % 10 == 2 ? "two" : "few";
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

    private String name(Weekday weekday) {
        return day(weekday).getDisplayName(TextStyle.FULL, words.language());
    }

    private String list(List<String> named, String joint) {
        return named.size() < 2 ? String.join("", named) : say("list." + joint, String.join(", ", named.subList(0, named.size() - 1)), named.get(named.size() - 1));
    }

    private String say(String key, Object... arguments) {
        return words.of("recurrence." + key, arguments);
    }
}
