package oakbasket.core.compose;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import oakbasket.core.deadline.LocalDeadline;
import oakbasket.core.fault.Fault;
import oakbasket.core.identity.Person;
import oakbasket.core.link.Passcode;
import oakbasket.core.naming.NamingPattern;
import oakbasket.core.naming.PatternProblem;
import oakbasket.core.reminder.LetterPlan;
import oakbasket.core.round.ItemSpec;

/** Reads a sheet and says, field by field, what keeps it from being opened, and what is allowed but odd. */
public final class SheetCheck {

    /** The longest note to the senders in characters. */
    public static final int LONGEST_NOTE = 10_000;
    /** The longest warning span and grace in hours. */
    public static final int MOST_HOURS = 24 * 90;
    /** The most documents of a checklist. */
    public static final int MOST_ITEMS = 50;
    /** The longest help for the sender in characters. */
    public static final int LONGEST_HELP = 2_000;

    /**
     * The outcome.
     *
     * @param errors what keeps it from being opened
     * @param oddities what is allowed but odd
     * @param plan what can be opened; empty while there are errors
     */
    public record Outcome(List<Fault> errors, List<Fault> oddities, Optional<RoundPlan> plan) {
    }

    private final RoundSheet sheet;
    private final SheetContext context;
    private final Findings found = new Findings();

    private SheetCheck(RoundSheet sheet, SheetContext context) {
        this.sheet = sheet;
        this.context = context;
    }

    /** What is wrong with a plan of letters alone. */
    public static List<Fault> faultsOfLetters(RoundSheet.SheetLetters letters, SheetContext context) {
        Findings found = new Findings();
        new LettersCheck(letters, context.quiet(), found).plan();
        return found.errors();
    }

    /** Checks a sheet. */
    public static Outcome check(RoundSheet sheet, SheetContext context) {
        return new SheetCheck(sheet, context).run();
    }

    private Outcome run() {
        String title = title();
        found.longest("note", sheet.note(), LONGEST_NOTE);
        List<PlannedItem> items = new ItemsCheck(sheet, context, found).read();
        List<Person> people = context.changing() ? List.of() : new PeopleCheck(sheet, context, found).read();
        DatesCheck.Dates dates = new DatesCheck(sheet, context, found).read();
        Long calendar = sheet.calendarId();
        if (calendar != null && !context.calendars().test(calendar)) {
            found.error("calendarId", "calendar-gone");
        }
        hours("warningHours", sheet.warningHours());
        hours("graceHours", sheet.graceHours());
        pattern("folderPattern", () -> NamingPattern.folders(sheet.folderPattern()));
        pattern("namePattern", () -> {
            NamingPattern name = NamingPattern.fileName(sheet.namePattern());
            if (name.completed()) {
                found.odd("namePattern", "pattern-no-extension", "{ext}");
            }
        });
        passcode();
        LetterPlan letters = new LettersCheck(sheet.letters(), context.quiet(), found).plan();
        LocalDeadline deadline = dates.deadline();
        Optional<RoundPlan> plan = found.count() > 0 || deadline == null || letters == null ? Optional.empty()
                : Optional.of(RoundPlanBuilder.stagedBuilder().title(title).note(sheet.note().strip()).items(items).people(people)
                        .groups(sheet.groups()).deadline(deadline).warning(Duration.ofHours(sheet.warningHours()))
                        .grace(Duration.ofHours(sheet.graceHours())).closing(dates.closing()).keepUntil(dates.keepUntil()).calendarId(calendar)
                        .folderPattern(sheet.folderPattern()).namePattern(sheet.namePattern()).openLink(sheet.openLink())
                        .passcode(sheet.passcode().strip()).takesActive(sheet.takesActive()).letters(letters).build());
        return new Outcome(found.errors(), found.oddities(), plan);
    }

    private String title() {
        String title = sheet.title().strip();
        if (title.isEmpty()) {
            found.error("title", "round-title-missing");
        } else if (title.length() > ItemSpec.LONGEST_TITLE) {
            found.error("title", "longest", ItemSpec.LONGEST_TITLE);
        }
        return title;
    }

    private void passcode() {
        if (sheet.openLink()) {
            Passcode.fault(sheet.passcode()).ifPresent(found::add);
        }
    }

    private void pattern(String field, Runnable reading) {
        try {
            reading.run();
        } catch (PatternProblem problem) {
            found.add(problem.at(field));
        }
    }

    private void hours(String field, int hours) {
        if (hours < 0 || hours > MOST_HOURS) {
            found.error(field, "hours", MOST_HOURS);
        }
    }
}
