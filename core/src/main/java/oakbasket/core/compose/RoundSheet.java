package oakbasket.core.compose;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import oakbasket.core.arrival.Archives;
import oakbasket.core.arrival.ArrivalPlan;
import oakbasket.core.arrival.Unchecked;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.reminder.ReminderStep;
import org.jspecify.annotations.Nullable;

/**
 * What a coordinator composes, as typed: any part may still be missing or wrong, so that nothing typed is ever lost.
 *
 * @param peopleText pasted lines that could not be read yet
 * @param groups groups that are asked as they are when the round opens
 * @param deadlineDate as {@code yyyy-MM-dd}
 * @param deadlineTime as {@code HH:mm}; empty means the end of the day
 * @param warningHours how long before the deadline a basket is due soon
 * @param closingDate when links shut by themselves; empty means they stay open while the round gathers
 * @param keepUntil the retention date; empty means none
 * @param calendarId whose working days count; null means the default
 * @param openLink whether there is also an open link
 * @param passcode asked on the open link; empty means none
 * @param takesActive whether files that run or open with script are taken
 * @param letters which letters the round sends by itself
 */
@RecordBuilder
public record RoundSheet(String title, String note, List<SheetItem> items, List<SheetPerson> people, String peopleText, List<String> groups,
        String deadlineDate, String deadlineTime, String zone, Integer warningHours, Integer graceHours, String closingDate, String closingTime, String keepUntil,
        @Nullable Long calendarId, String folderPattern, String namePattern, Boolean openLink, String passcode, Boolean takesActive, SheetLetters letters) {

    /**
     * An item as typed.
     *
     * @param id the item of a gathering round that is changed; null for a new one
     * @param kinds names of file kinds; empty means any
     * @param maxMebibytes the size limit in MiB
     * @param groups the groups that owe it; empty means everybody
     * @param formId the blank form; null when there is none
     * @param archives what is done with a ZIP; null means it is a file like any other
     * @param unchecked what is done with files that nobody could check for malware; null means they wait
     */
    @RecordBuilder
    public record SheetItem(@Nullable Long id, String title, String help, Boolean required, Integer minFiles, Integer maxFiles, List<String> kinds, Integer maxMebibytes,
            List<String> groups, @Nullable Long formId, String formName, @Nullable Archives archives, @Nullable Unchecked unchecked) {
        public SheetItem {
            title = text(title);
            help = text(help);
            required = required == null || required;
            minFiles = number(minFiles, 1);
            maxFiles = number(maxFiles, 1);
            kinds = kinds == null ? List.of() : kinds;
            maxMebibytes = number(maxMebibytes, 50);
            groups = groups == null ? List.of() : groups;
            formName = text(formName);
            archives = archives == null ? Archives.AS_SENT : archives;
            unchecked = unchecked == null ? Unchecked.WAIT : unchecked;
        }

        /** A plain item, owed by everybody, without a form. */
        public static SheetItem of(String title, String help, boolean required, int min, int max, List<String> kinds, int maxMebibytes) {
            return new SheetItem(null, title, help, required, min, max, kinds, maxMebibytes, List.of(), null, "", null, null);
        }

        /** What is done with files as they arrive. */
        ArrivalPlan arrival() {
            return new ArrivalPlan(archives == null ? Archives.AS_SENT : archives, unchecked == null ? Unchecked.WAIT : unchecked);
        }

        SheetItem asNew() {
            return RoundSheetSheetItemBuilder.builder(this).id(null).build();
        }

        /** The same item with archives treated like this. */
        public SheetItem opening(Archives how) {
            return RoundSheetSheetItemBuilder.builder(this).archives(how).build();
        }

        /** The same item owed by these groups alone. */
        public SheetItem owedBy(List<String> owing) {
            return RoundSheetSheetItemBuilder.builder(this).groups(owing).build();
        }
    }

    /** A person as read from a line. */
    public record SheetPerson(String name, String email) {
        public SheetPerson {
            name = text(name);
            email = text(email);
        }
    }

    /**
     * Which letters the round sends by itself, as typed.
     *
     * @param repeatEvery how many working days lie between two repetitions of the last step
     * @param repeatTimes how many there are at most; 0 means none
     * @param shift what to do with a step on a day nobody works
     */
    public record SheetLetters(Boolean invite, Boolean tellReturned, Boolean tellExtended, Boolean tellReceived, Boolean thank, List<SheetStep> steps, Integer repeatEvery, Integer repeatTimes, WorkingDays.@Nullable Shift shift) {
        /** No letters. */
        public static final SheetLetters NONE = new SheetLetters(false, false, false, false, false, List.of(), 5, 0, WorkingDays.Shift.EARLIER);

        public SheetLetters {
            invite = invite != null && invite;
            tellReturned = tellReturned != null && tellReturned;
            tellExtended = tellExtended != null && tellExtended;
            tellReceived = tellReceived != null && tellReceived;
            thank = thank != null && thank;
            steps = steps == null ? List.of() : steps;
            repeatEvery = number(repeatEvery, 5);
            repeatTimes = number(repeatTimes, 0);
            shift = shift == null ? WorkingDays.Shift.EARLIER : shift;
        }
    }

    /**
     * A step of the reminder plan, as typed.
     *
     * @param days from the deadline; negative is before it
     * @param at as {@code HH:mm}
     */
    public record SheetStep(Integer days, ReminderStep.@Nullable Unit unit, String at, Boolean lastCall) {
        /** A step that is not the last call. */
        public SheetStep(Integer days, ReminderStep.Unit unit, String at) {
            this(days, unit, at, false);
        }

        public SheetStep {
            lastCall = lastCall != null && lastCall;
            days = number(days, 0);
            unit = unit == null ? ReminderStep.Unit.CALENDAR : unit;
            at = text(at);
        }
    }

    public RoundSheet {
        title = text(title);
        note = text(note);
        items = items == null ? List.of() : items;
        people = people == null ? List.of() : people;
        peopleText = text(peopleText);
        groups = groups == null ? List.of() : groups;
        deadlineDate = text(deadlineDate);
        deadlineTime = text(deadlineTime);
        zone = text(zone);
        warningHours = number(warningHours, 72);
        graceHours = number(graceHours, 0);
        closingDate = text(closingDate);
        closingTime = text(closingTime);
        keepUntil = text(keepUntil);
        folderPattern = text(folderPattern);
        namePattern = text(namePattern);
        openLink = openLink != null && openLink;
        passcode = text(passcode);
        takesActive = takesActive != null && takesActive;
        letters = letters == null ? SheetLetters.NONE : letters;
    }

    /** The same sheet without its passcode, to be kept after opening. */
    public RoundSheet withoutPasscode() {
        return RoundSheetBuilder.builder(this).passcode("").build();
    }

    /** The same sheet for another round: with this title and deadline, without the other dates, and with items of its own. */
    public RoundSheet forAnother(String newTitle, String deadline) {
        return RoundSheetBuilder.builder(this).title(newTitle).items(items.stream().map(SheetItem::asNew).toList()).peopleText("").deadlineDate(deadline)
                .closingDate("").closingTime("").keepUntil("").build();
    }

    /** The same sheet asking others. */
    public RoundSheet asking(List<SheetPerson> others, List<String> otherGroups) {
        return RoundSheetBuilder.builder(this).people(others).groups(otherGroups).build();
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given;
    }

    private static Integer number(@Nullable Integer given, int otherwise) {
        return given == null ? otherwise : given;
    }
}
