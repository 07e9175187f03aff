package oakbasket.server.round;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Predicate;
import oakbasket.core.contact.AddressSlip;
import oakbasket.core.deadline.LocalDeadline;
import oakbasket.core.deadline.ThreeClocks;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.naming.NamingPattern;
import oakbasket.core.naming.PatternProblem;
import oakbasket.core.reminder.LetterPlan;
import oakbasket.core.round.ItemSpec;
import oakbasket.server.round.RoundSheet.SheetItem;
import oakbasket.server.web.Problem.FieldError;
import org.jspecify.annotations.Nullable;

/** Reads a sheet and says, field by field, what keeps it from being opened, and what is allowed but odd. */
final class SheetCheck {

    private static final int MOST_ITEMS = 50;
    private static final int MOST_PEOPLE = 50_000;
    private static final int LONGEST_NOTE = 10_000;
    private static final int LONGEST_HELP = 2_000;
    private static final int MOST_HOURS = 24 * 90;
    private static final int SHORTEST_PASSCODE = 6;
    private static final int LONGEST_PASSCODE = 64;

    /**
     * The outcome.
     *
     * @param plan what can be opened; empty while there are errors
     */
    record Outcome(List<FieldError> errors, List<FieldError> oddities, Optional<RoundPlan> plan) {
    }

    /**
     * What a sheet is checked against.
     *
     * @param groupSizes how many contacts are in each group, by its name
     * @param closedBecause why nobody works on a date in a calendar; null when people do
     * @param changing whether a gathering round is changed, so that its people are not looked at and its deadline may be past
     */
    record Context(Instant now, Map<String, Integer> groupSizes, BiFunction<@Nullable Long, LocalDate, @Nullable String> closedBecause, Predicate<Long> calendars,
            Predicate<Long> forms, boolean changing) {
    }

    private final RoundSheet sheet;
    private final Instant now;
    private final Context context;
    private final List<FieldError> errors = new ArrayList<>();
    private final List<FieldError> oddities = new ArrayList<>();

    private SheetCheck(RoundSheet sheet, Context context) {
        this.sheet = sheet;
        this.now = context.now();
        this.context = context;
    }

    static Outcome check(RoundSheet sheet, Context context) {
        return new SheetCheck(sheet, context).run();
    }

    private Outcome run() {
        String title = sheet.title().strip();
        if (title.isEmpty() || title.length() > ItemSpec.LONGEST_TITLE) {
            error("title", title.isEmpty() ? "Give the round a title; the people you ask will see it" : "Use at most " + ItemSpec.LONGEST_TITLE + " characters");
        }
        longest("note", sheet.note(), LONGEST_NOTE);
        List<PlannedItem> items = items();
        List<Person> people = context.changing() ? List.of() : people();
        LocalDeadline deadline = deadline();
        LocalDeadline closing = closing();
        LocalDate keepUntil = sheet.keepUntil().isBlank() ? null : parse("keepUntil", sheet.keepUntil(), LocalDate::parse, "Not a date; for example 2027-06-30");
        if (deadline != null) {
            clocks(deadline, closing, keepUntil);
        }
        Long calendar = sheet.calendarId();
        if (calendar != null && !context.calendars().test(calendar)) {
            error("calendarId", "There is no such calendar any more. Choose another");
        }
        hours("warningHours", sheet.warningHours());
        hours("graceHours", sheet.graceHours());
        pattern("folderPattern", () -> NamingPattern.folders(sheet.folderPattern()));
        pattern("namePattern", () -> NamingPattern.fileName(sheet.namePattern()));
        String passcode = sheet.passcode().strip();
        if (sheet.openLink() && !passcode.isEmpty() && (passcode.length() < SHORTEST_PASSCODE || passcode.length() > LONGEST_PASSCODE)) {
            error("passcode", "A passcode has " + SHORTEST_PASSCODE + " to " + LONGEST_PASSCODE + " characters");
        }
        if (!context.changing() && people.isEmpty() && sheet.groups().isEmpty() && !sheet.openLink() && errors.stream().noneMatch(e -> e.field().startsWith("people"))) {
            error("people", "Say who owes it: add at least one person, or allow an open link");
        }
        LetterPlan letters = new LetterCheck(sheet.letters(), this::error).plan();
        Optional<RoundPlan> plan = errors.isEmpty() && deadline != null && letters != null
                ? Optional.of(new RoundPlan(title, sheet.note().strip(), items, people, sheet.groups(), deadline, Duration.ofHours(sheet.warningHours()),
                        Duration.ofHours(sheet.graceHours()), closing, keepUntil, calendar, sheet.folderPattern(), sheet.namePattern(), sheet.openLink(), passcode, sheet.takesActive(), letters))
                : Optional.empty();
        return new Outcome(List.copyOf(errors), List.copyOf(oddities), plan);
    }

    private void clocks(LocalDeadline deadline, @Nullable LocalDeadline closing, @Nullable LocalDate keepUntil) {
        new ThreeClocks(deadline.instant(), closing == null ? null : closing.instant(), keepUntil).fault(deadline.zone()).ifPresent(fault -> {
            if (fault == ThreeClocks.Fault.CLOSING_BEFORE_DEADLINE) {
                error("closingDate", "Links cannot shut before the deadline");
            } else {
                error("keepUntil", "Papers are kept longer than the round gathers; choose a later day");
            }
        });
    }

    private @Nullable LocalDeadline closing() {
        if (sheet.closingDate().isBlank()) {
            return null;
        }
        LocalDate date = parse("closingDate", sheet.closingDate(), LocalDate::parse, "Not a date; for example 2026-07-31");
        LocalTime time = sheet.closingTime().isBlank() ? null : parse("closingTime", sheet.closingTime(), LocalTime::parse, "Not a time; for example 17:00");
        if (date == null || date.getYear() > 9999 || !ZoneId.getAvailableZoneIds().contains(sheet.zone().strip())) {
            return null;
        }
        return new LocalDeadline(date, time, ZoneId.of(sheet.zone().strip()));
    }

    /** Groups that are named and exist; the others are errors. */
    private List<String> groups(String field, List<String> named) {
        named.stream().filter(group -> !context.groupSizes().containsKey(group)).findFirst()
                .ifPresent(group -> error(field, "There is no group called “" + group + "” any more"));
        return List.copyOf(new LinkedHashSet<>(named));
    }

    private List<PlannedItem> items() {
        List<PlannedItem> specs = new ArrayList<>();
        if (sheet.items().isEmpty() || sheet.items().size() > MOST_ITEMS) {
            error("items", sheet.items().isEmpty() ? "Write down at least one item that you need" : "A checklist has at most " + MOST_ITEMS + " items");
        }
        Map<String, Integer> titles = new LinkedHashMap<>();
        for (int i = 0; i < sheet.items().size() && i < MOST_ITEMS; i++) {
            SheetItem item = sheet.items().get(i);
            String field = "items[" + i + "].";
            int before = errors.size();
            if (item.title().isBlank() || item.title().strip().length() > ItemSpec.LONGEST_TITLE) {
                error(field + "title", item.title().isBlank() ? "Name the document you need" : "Use at most " + ItemSpec.LONGEST_TITLE + " characters");
            }
            longest(field + "help", item.help(), LONGEST_HELP);
            if (item.minFiles() < 1 || item.minFiles() > ItemSpec.MOST_FILES) {
                error(field + "minFiles", "At least 1 and at most " + ItemSpec.MOST_FILES);
            }
            if (item.maxFiles() < item.minFiles() || item.maxFiles() > ItemSpec.MOST_FILES) {
                error(field + "maxFiles", "Not fewer than the least number, and at most " + ItemSpec.MOST_FILES);
            }
            long bytes = item.maxMebibytes() * 1024L * 1024L;
            if (bytes < 1 || bytes > ItemSpec.MOST_BYTES) {
                error(field + "maxMebibytes", "From 1 MiB to 1048576 MiB (1 TiB)");
            }
            Set<FileKind> kinds = kinds(item, field);
            if (!item.title().isBlank() && titles.put(item.title().strip().toLowerCase(), i) != null) {
                oddities.add(new FieldError(field + "title", "Two items are called “" + item.title().strip() + "”"));
            }
            List<String> owedBy = groups(field + "groups", item.groups());
            Long form = item.formId();
            if (form != null && !context.forms().test(form)) {
                error(field + "form", "The blank form is gone. Add it again");
            }
            if (errors.size() == before) {
                ItemSpec spec = new ItemSpec(item.title().strip(), item.help().strip(), item.required(), item.minFiles(), item.maxFiles(), kinds, bytes);
                specs.add(new PlannedItem(item.id(), spec, owedBy, form));
            }
        }
        if (!specs.isEmpty() && specs.stream().noneMatch(item -> item.spec().required())) {
            oddities.add(new FieldError("items", "No item is required: a basket counts as complete with its first file"));
        }
        if (!specs.isEmpty() && specs.stream().noneMatch(item -> item.owedBy().isEmpty())) {
            oddities.add(new FieldError("items", "Every document is asked of some groups only: whoever is in none of them owes nothing"));
        }
        return specs;
    }

    private Set<FileKind> kinds(SheetItem item, String field) {
        Set<FileKind> kinds = EnumSet.noneOf(FileKind.class);
        for (String kind : item.kinds()) {
            try {
                kinds.add(FileKind.valueOf(kind));
            } catch (IllegalArgumentException unknown) {
                error(field + "kinds", "There is no kind of file called “" + kind + "”");
            }
        }
        return kinds;
    }

    private List<Person> people() {
        Map<String, Person> people = new LinkedHashMap<>();
        if (sheet.people().size() > MOST_PEOPLE) {
            error("people", "A round asks at most " + MOST_PEOPLE + " people");
            return List.of();
        }
        for (int i = 0; i < sheet.people().size(); i++) {
            RoundSheet.SheetPerson entry = sheet.people().get(i);
            try {
                Person person = new Person(entry.name().strip(), MailAddress.parse(entry.email()));
                people.putIfAbsent(person.address().key(), person);
            } catch (IllegalArgumentException problem) {
                error("people[" + i + "]", String.valueOf(problem.getMessage()));
            }
        }
        groups("groups", sheet.groups()).stream().filter(group -> context.groupSizes().getOrDefault(group, 1) == 0)
                .forEach(group -> oddities.add(new FieldError("groups", "Nobody is in the group “" + group + "”")));
        if (people.isEmpty() && !sheet.groups().isEmpty() && !sheet.openLink() && sheet.groups().stream().allMatch(group -> context.groupSizes().getOrDefault(group, 1) == 0)) {
            error("people", "Nobody is in the groups chosen");
        }
        people.values().forEach(person -> AddressSlip.suggestion(person.address())
                .ifPresent(meant -> oddities.add(new FieldError("people", person.address().text() + ": perhaps " + meant + " is meant"))));
        if (!sheet.peopleText().isBlank()) {
            error("peopleText", "These lines are not added yet. Correct or remove them");
        }
        return List.copyOf(people.values());
    }

    private @Nullable LocalDeadline deadline() {
        LocalDate date = parse("deadlineDate", sheet.deadlineDate(), LocalDate::parse,
                sheet.deadlineDate().isBlank() ? "Say by when you need it" : "Not a date; for example 2026-06-30");
        LocalTime time = sheet.deadlineTime().isBlank() ? null : parse("deadlineTime", sheet.deadlineTime(), LocalTime::parse, "Not a time; for example 17:00");
        ZoneId zone = parse("zone", sheet.zone(), SheetCheck::region, "Not a time zone; for example Europe/London");
        if (date == null || zone == null) {
            return null;
        }
        LocalDeadline deadline = new LocalDeadline(date, time, zone);
        if (date.getYear() > 9999 || !context.changing() && !deadline.instant().isAfter(now)) {
            error("deadlineDate", date.getYear() > 9999 ? "Not a date; for example 2026-06-30" : "This is in the past. Choose a later date or time");
        }
        String closed = context.closedBecause().apply(sheet.calendarId(), date);
        if (closed != null) {
            oddities.add(new FieldError("deadlineDate", "Nobody works on the day of the deadline: " + closed));
        }
        return deadline;
    }

    private static ZoneId region(String text) {
        if (!ZoneId.getAvailableZoneIds().contains(text.strip())) {
            throw new DateTimeException(text);
        }
        return ZoneId.of(text.strip());
    }

    private <T> @Nullable T parse(String field, String text, java.util.function.Function<String, T> reader, String message) {
        try {
            return reader.apply(text.strip());
        } catch (DateTimeException wrong) {
            error(field, message);
            return null;
        }
    }

    private void pattern(String field, Runnable reading) {
        try {
            reading.run();
        } catch (PatternProblem problem) {
            error(field, String.valueOf(problem.getMessage()));
        }
    }

    private void hours(String field, int hours) {
        if (hours < 0 || hours > MOST_HOURS) {
            error(field, "From 0 to " + MOST_HOURS + " hours");
        }
    }

    private void longest(String field, String text, int most) {
        if (text.length() > most) {
            error(field, "Use at most " + most + " characters; this has " + text.length());
        }
    }

    private void error(String field, String detail) {
        errors.add(new FieldError(field, detail));
    }
}
