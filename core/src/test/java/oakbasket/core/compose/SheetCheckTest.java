package oakbasket.core.compose;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import oakbasket.core.arrival.Archives;
import oakbasket.core.arrival.ArrivalPlan;
import oakbasket.core.arrival.Unchecked;
import oakbasket.core.compose.RoundSheet.SheetItem;
import oakbasket.core.compose.RoundSheet.SheetLetters;
import oakbasket.core.compose.RoundSheet.SheetPerson;
import oakbasket.core.compose.RoundSheet.SheetStep;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.fault.Fault;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.reminder.QuietHours;
import oakbasket.core.reminder.ReminderPlan;
import oakbasket.core.reminder.ReminderStep;
import oakbasket.core.round.ItemSpec;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SheetCheckTest {

    /** 1 June 2026, 14:00 in London. There are the groups East, with three contacts, and Empty, a calendar 7 and a form 9. */
    private static final Instant NOW = Instant.parse("2026-06-01T13:00:00Z");
    private static final SheetContext CONTEXT = context(false);
    private static final RoundSheet GOOD = RoundSheetBuilder.builder().title(" Consent packs ").note(" Thank you. ").items(List.of(SheetItem.of("Signed consent", "Page 4", true, 1, 2, List.of("PDF"), 10)))
            .people(List.of(new SheetPerson("Ada Brook", "ada@example.org"))).deadlineDate("2026-06-30").deadlineTime("17:00").zone("Europe/London").warningHours(72).graceHours(24)
            .folderPattern("{round}/{person}").namePattern("{item}{ext}").build();

    private static SheetContext context(boolean changing) {
        return new SheetContext(NOW, Map.of("East", 3, "Empty", 0), (calendar, date) -> date.equals(LocalDate.of(2026, 7, 4)) ? "closed for the fair" : null,
                id -> id == 7, id -> id == 9, QuietHours.NIGHT, address -> !address.needsUtf8(), changing);
    }

    @Test
    void aSheetWithoutFaultsBecomesAPlan() {
        RoundSheet sheet = RoundSheetBuilder.builder(GOOD).closingDate("2026-07-15").keepUntil("2027-07-16").calendarId(7L).groups(List.of("East")).openLink(true).passcode(" kingfisher ")
                .people(List.of(new SheetPerson(" Ada Brook ", " ada@example.org "), new SheetPerson("Ada again", "ADA@Example.org"))).takesActive(true)
                .items(List.of(new SheetItem(null, " Map ", " any ", false, 2, 5, List.of("PDF", "IMAGE"), 20, List.of("East", "East"), 9L, "", Archives.OPENED, null), SheetItem.of("List", "", true, 1, 1, List.of(), 1)))
                .letters(new SheetLetters(true, true, true, true, false, List.of(new SheetStep(-7, ReminderStep.Unit.CALENDAR, "09:00"), new SheetStep(1, ReminderStep.Unit.WORKING, "10:30")), 5, 3, WorkingDays.Shift.LATER)).build();
        SheetCheck.Outcome outcome = SheetCheck.check(sheet, CONTEXT);
        assertThat(outcome.errors()).isEmpty();
        RoundPlan plan = outcome.plan().orElseThrow();
        assertThat(plan.title()).isEqualTo("Consent packs");
        assertThat(plan.note()).isEqualTo("Thank you.");
        assertThat(plan.people()).extracting(person -> person.name() + " " + person.address()).containsExactly("Ada Brook ada@example.org");
        assertThat(plan.deadline().instant()).isEqualTo("2026-06-30T16:00:00Z");
        assertThat(plan.closesAt()).as("the end of the day").isEqualTo("2026-07-15T22:59:59.999999999Z");
        assertThat(plan.keepUntil()).isEqualTo("2027-07-16");
        assertThat(plan.passcode()).isEqualTo("kingfisher");
        assertThat(plan.items()).extracting(PlannedItem::owedBy).containsExactly(List.of("East"), List.of());
        assertThat(plan.items().get(0).spec()).isEqualTo(new ItemSpec("Map", "any", false, 2, 5, Set.of(FileKind.PDF, FileKind.IMAGE), 20L << 20, new ArrivalPlan(Archives.OPENED, Unchecked.WAIT)));
        assertThat(plan.letters().reminders().steps()).extracting(ReminderStep::days).containsExactly(-7, 1);
        assertThat(plan.letters().reminders().repeat()).isEqualTo(new ReminderPlan.Repeat(5, 3));
        assertThat(plan.letters().reminders().shift()).isEqualTo(WorkingDays.Shift.LATER);
        assertThat(plan.warning()).hasHours(72);
        assertThat(plan.grace()).hasHours(24);
    }

    /** One field is typed differently; what is then found: errors, then oddities behind a question mark. */
    @ParameterizedTest(name = "{0} = [{1}]: {2}")
    @CsvSource(delimiter = '|', value = {
        "title          | ''                | title round-title-missing []",
        "title          | x*200             | ",
        "title          | x*201             | title longest [200]",
        "note           | x*10000           | ",
        "note           | x*10001           | note longest-has [10000, 10001]",
        "deadlineDate   | ''                | deadlineDate deadline-missing []",
        "deadlineDate   | 30.06.2026        | deadlineDate not-a-date []",
        "deadlineDate   | +12026-06-30      | deadlineDate not-a-date []",
        "deadlineDate   | 9999-12-31        | ",
        "deadlineDate   | 2026-05-31        | deadlineDate deadline-past []",
        "deadlineDate   | 2026-07-04        | ?deadlineDate deadline-closed-day [closed for the fair]",
        "deadlineTime   | 5pm               | deadlineTime not-a-time []",
        "deadlineTime   | ''                | ",
        "zone           | Europe/Ely        | zone not-a-zone []",
        "zone           | +01:00            | zone not-a-zone []",
        "closingDate    | 2026-06-29        | closingDate closing-before-deadline []",
        "closingDate    | soon              | closingDate not-a-date []",
        "keepUntil      | 2026-06-30        | keepUntil kept-too-briefly []",
        "keepUntil      | 2026-07-01        | ",
        "keepUntil      | 2026              | keepUntil not-a-date []",
        "calendarId     | 8                 | calendarId calendar-gone []",
        "calendarId     | 7                 | ",
        "warningHours   | -1                | warningHours hours [2160]",
        "warningHours   | 2160              | ",
        "graceHours     | 0                 | ",
        "warningHours   | 0                 | ",
        "graceHours     | 2161              | graceHours hours [2160]",
        "folderPattern  | ../x              | folderPattern pattern-leads-out [..]",
        "namePattern    | x                 | namePattern pattern-one-name []",
        "peopleText     | Ben at example    | peopleText lines-not-added []",
        "groups         | East              | ",
        "groups         | West              | groups no-such-group [West]",
        "groups         | Empty             | ?groups group-empty [Empty]",
        "people         | Ada <ada@gmial.com> | ?people address-perhaps [ada@gmial.com, ada@gmail.com]",
        "people         | Ada <ada@localhost> | people[0] address-domain [localhost]",
        "people         | ' <a@example.org>'  | people[0] name-one-line [200]",
        "people         | Jürgen <jürgen@example.org> | people[0] address-not-carried [jürgen@example.org]",
        "people         | Jürgen <juergen@bücher.example> | ",
        "people         | -                 | people people-missing []",
        "people         | *50000            | ",
        "people         | *50001            | people people-most [50000]",
        "passcode       | 12345             | ",
        "openPasscode   | 12345             | passcode passcode-length [6, 64]",
        "openPasscode   | 123456            | ",
        "openPasscode   | x*64              | ",
        "openPasscode   | x*65              | passcode passcode-length [6, 64]",
        "items          | -                 | items items-missing []",
        "items          | 50                | ",
        "items          | 51                | items items-most [50]"})
    void aFieldThatCannotBeIsNamedWithItsReason(String field, String typed, String found) {
        SheetCheck.Outcome outcome = SheetCheck.check(typed(field, typed), CONTEXT);
        assertThat(said(outcome)).isEqualTo(found == null ? "" : found);
        assertThat(outcome.plan().isPresent()).isEqualTo(outcome.errors().isEmpty());
    }

    private static RoundSheet typed(String field, String typed) {
        RoundSheetBuilder sheet = RoundSheetBuilder.builder(GOOD);
        String text = typed.startsWith("x*") ? "x".repeat(Integer.parseInt(typed.substring(2))) : typed;
        return (switch (field) {
            case "title" -> sheet.title(text);
            case "note" -> sheet.note(text);
            case "deadlineDate" -> sheet.deadlineDate(text);
            case "deadlineTime" -> sheet.deadlineTime(text);
            case "zone" -> sheet.zone(text);
            case "closingDate" -> sheet.closingDate(text);
            case "keepUntil" -> sheet.keepUntil(text);
            case "calendarId" -> sheet.calendarId(Long.valueOf(text));
            case "warningHours" -> sheet.warningHours(Integer.valueOf(text));
            case "graceHours" -> sheet.graceHours(Integer.valueOf(text));
            case "folderPattern" -> sheet.folderPattern(text);
            case "namePattern" -> sheet.namePattern(text);
            case "peopleText" -> sheet.peopleText(text);
            case "groups" -> sheet.groups(List.of(text));
            case "people" -> sheet.people(people(text));
            case "passcode" -> sheet.passcode(text);
            case "openPasscode" -> sheet.passcode(text).openLink(true);
            default -> sheet.items(text.equals("-") ? List.of() : items(Integer.parseInt(text)));
        }).build();
    }

    private static List<SheetPerson> people(String text) {
        if (text.equals("-")) {
            return List.of();
        }
        if (text.startsWith("*")) {
            List<SheetPerson> many = new ArrayList<>();
            for (int i = 0; i < Integer.parseInt(text.substring(1)); i++) {
                many.add(new SheetPerson("P", "p" + i + "@example.org"));
            }
            return many;
        }
        return List.of(new SheetPerson(text.substring(0, text.indexOf('<')), text.substring(text.indexOf('<') + 1, text.length() - 1)));
    }

    private static List<SheetItem> items(int count) {
        List<SheetItem> items = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            items.add(SheetItem.of("Paper " + i, "", true, 1, 1, List.of(), 1));
        }
        return items;
    }

    /** An item is {@code title|help|min|max|kinds|MiB|groups|form}. */
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = '!', value = {
        "Map!!1!1!!1!!                     ! ",
        "!!1!1!!1!!                        ! items[0].title item-title-missing []",
        "x*200!!1!1!!1!!                   ! ",
        "x*201!!1!1!!1!!                   ! items[0].title longest [200]",
        "Map!x*2001!1!1!!1!!               ! items[0].help longest-has [2000, 2001]",
        "Map!!0!1!!1!!                     ! items[0].minFiles item-least-files [5000]",
        "Map!!5001!5001!!1!!               ! items[0].minFiles item-least-files [5000]; items[0].maxFiles item-most-files [5000]",
        "Map!!2!1!!1!!                     ! items[0].maxFiles item-most-files [5000]",
        "Map!!5000!5000!!1!!               ! ",
        "Map!!1!1!!0!!                     ! items[0].maxMebibytes item-size [1048576]",
        "Map!!1!1!!1048576!!               ! ",
        "Map!!1!1!!1048577!!               ! items[0].maxMebibytes item-size [1048576]",
        "Map!!1!1!PDF SONG!1!!             ! items[0].kinds no-such-kind [SONG]",
        "Map!!1!1!!1!West!                 ! items[0].groups no-such-group [West]",
        "Map!!1!1!!1!East!                 ! ?items items-groups-only []",
        "Map!!1!1!!1!!8                    ! items[0].form form-gone []",
        "Map!!1!1!!1!!9                    ! "}, ignoreLeadingAndTrailingWhitespace = true, maxCharsPerColumn = 5000)
    void anItemThatCannotBeIsNamedWithItsReason(String title, String help, int min, int max, String kinds, int mebibytes, String groups, Long form, String found) {
        SheetItem item = new SheetItem(null, long_(title), long_(help), true, min, max, kinds == null ? List.of() : List.of(kinds.split(" ")), mebibytes,
                groups == null ? List.of() : List.of(groups), form, "", null, null);
        assertThat(said(SheetCheck.check(RoundSheetBuilder.builder(GOOD).items(List.of(item)).build(), CONTEXT))).isEqualTo(found == null ? "" : found);
    }

    private static String long_(String text) {
        return text == null ? "" : text.startsWith("x*") ? "x".repeat(Integer.parseInt(text.substring(2))) : text;
    }

    /** One missing thing is not told in place of another, and what lies beyond the longest checklist is not looked at. */
    @Test
    void faultsDoNotHideOneAnother() {
        assertThat(said(SheetCheck.check(RoundSheetBuilder.builder(GOOD).title("").people(List.of()).build(), CONTEXT))).isEqualTo("title round-title-missing []; people people-missing []");
        List<SheetItem> many = new ArrayList<>(items(50));
        many.add(SheetItem.of("", "", true, 0, 0, List.of("SONG"), 0));
        assertThat(said(SheetCheck.check(RoundSheetBuilder.builder(GOOD).items(many).build(), CONTEXT))).isEqualTo("items items-most [50]");
    }

    @Test
    void whatIsAllowedButOddIsTold() {
        assertThat(said(SheetCheck.check(with(sheet -> RoundSheetBuilder.builder(sheet).items(List.of(SheetItem.of("Map", "", false, 1, 1, List.of(), 1),
                SheetItem.of(" MAP", "", false, 1, 1, List.of(), 1))).build()), CONTEXT))).isEqualTo("?items[1].title item-title-twice [MAP]; ?items items-none-required []");
        assertThat(said(SheetCheck.check(RoundSheetBuilder.builder(GOOD).namePattern("{person} - {item}").build(), CONTEXT))).isEqualTo("?namePattern pattern-no-extension [{ext}]");
        RoundSheet nobody = RoundSheetBuilder.builder(GOOD).people(List.of()).groups(List.of("Empty", "Empty")).build();
        assertThat(said(SheetCheck.check(nobody, CONTEXT))).isEqualTo("people groups-all-empty []; ?groups group-empty [Empty]");
        assertThat(said(SheetCheck.check(RoundSheetBuilder.builder(nobody).openLink(true).build(), CONTEXT))).isEqualTo("?groups group-empty [Empty]");
        assertThat(said(SheetCheck.check(RoundSheetBuilder.builder(nobody).groups(List.of("Empty", "East")).build(), CONTEXT))).isEqualTo("?groups group-empty [Empty]");
    }

    /** Of a round that gathers nobody is asked anew and the deadline may be past; all else holds. */
    @Test
    void aGatheringRoundIsCheckedWithoutItsPeople() {
        RoundSheet sheet = RoundSheetBuilder.builder(GOOD).people(List.of()).deadlineDate("2026-05-01").build();
        assertThat(said(SheetCheck.check(sheet, context(true)))).isEmpty();
        assertThat(said(SheetCheck.check(RoundSheetBuilder.builder(sheet).title("").build(), context(true)))).isEqualTo("title round-title-missing []");
        assertThat(said(SheetCheck.check(sheet, CONTEXT))).isEqualTo("people people-missing []; deadlineDate deadline-past []");
    }

    /** A step is {@code days@time}. */
    @ParameterizedTest(name = "steps {0}, then {2} times every {1} days: {3}")
    @CsvSource(delimiter = '|', value = {
        "''             | 5  | 0  | ",
        "-7@09:00 1@10:00 | 60 | 20 | ",
        "-7@9am         | 5  | 0  | letters.steps[0].at not-a-time-of-step []",
        "0@21:59        | 5  | 0  | letters.steps[0].at step-at-night [20:00, 07:00]",
        "180@09:00      | 5  | 0  | ",
        "-180@09:00     | 1  | 1  | ",
        "EIGHT          | 5  | 0  | ",
        "181@09:00      | 5  | 0  | letters.steps[0].days step-far [180]",
        "-2147483648@09:00 | 5 | 0 | letters.steps[0].days step-far [180]",
        "1@09:00        | 61 | 1  | letters.repeatEvery repeat-every [60]",
        "1@09:00        | 0  | 1  | letters.repeatEvery repeat-every [60]",
        "1@09:00        | 0  | 0  | ",
        "1@09:00        | 5  | 21 | letters.repeatTimes repeat-times [20]",
        "1@09:00        | 5  | -1 | letters.repeatTimes repeat-times [20]",
        "NINE           | 5  | 0  | letters.steps steps-most [8]"})
    void aPlanOfLettersThatCannotBeIsNamedWithItsReason(String steps, int every, int times, String found) {
        List<SheetStep> typed = new ArrayList<>();
        if (steps.matches("EIGHT|NINE")) {
            typed.addAll(Collections.nCopies(steps.equals("EIGHT") ? 8 : 9, new SheetStep(1, ReminderStep.Unit.CALENDAR, "09:00")));
        } else {
            for (String step : steps.isEmpty() ? new String[0] : steps.split(" ")) {
                typed.add(new SheetStep(Integer.parseInt(step.substring(0, step.indexOf('@'))), ReminderStep.Unit.CALENDAR, step.substring(step.indexOf('@') + 1)));
            }
        }
        RoundSheet sheet = RoundSheetBuilder.builder(GOOD).letters(new SheetLetters(false, false, false, false, false, typed, every, times, WorkingDays.Shift.EARLIER)).build();
        assertThat(said(SheetCheck.check(sheet, CONTEXT))).isEqualTo(found == null ? "" : found);
    }

    @Test
    void forAnotherRoundASheetLosesItsDatesAndKeepsItsWords() {
        RoundSheet sheet = RoundSheetBuilder.builder(GOOD).closingDate("2026-07-15").closingTime("12:00").keepUntil("2027-07-16").passcode("kingfisher").peopleText("x")
                .items(List.of(new SheetItem(4L, "Map", "", true, 1, 1, List.of(), 1, List.of(), null, "", null, null))).build();
        RoundSheet another = sheet.forAnother("Packs, July", "2026-07-31");
        assertThat(another).isEqualTo(RoundSheetBuilder.builder(sheet).title("Packs, July").deadlineDate("2026-07-31").closingDate("").closingTime("").keepUntil("").peopleText("")
                .items(List.of(SheetItem.of("Map", "", true, 1, 1, List.of(), 1))).build());
        assertThat(sheet.withoutPasscode().passcode()).isEmpty();
        assertThat(sheet.asking(List.of(new SheetPerson("Ben", "ben@example.org")), List.of("East"))).isEqualTo(RoundSheetBuilder.builder(sheet)
                .people(List.of(new SheetPerson("Ben", "ben@example.org"))).groups(List.of("East")).build());
        assertThat(sheet.items().get(0).owedBy(List.of("East")).groups()).containsExactly("East");
    }

    private static RoundSheet with(UnaryOperator<RoundSheet> change) {
        return change.apply(GOOD);
    }

    private static String said(SheetCheck.Outcome outcome) {
        List<String> said = new ArrayList<>();
        outcome.errors().forEach(fault -> said.add(said(fault)));
        outcome.oddities().forEach(fault -> said.add("?" + said(fault)));
        return String.join("; ", said);
    }

    private static String said(Fault fault) {
        return fault.field() + " " + fault.code() + " " + fault.arguments();
    }
}
