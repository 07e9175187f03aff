package oakbasket.core.filing;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import oakbasket.core.fault.Fault;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.identity.Identity;
import oakbasket.core.naming.ClashNumber;
import oakbasket.core.naming.NameFacts;
import oakbasket.core.naming.NamingPattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FilingRulesTest {

    private static final NamingPattern FOLDERS = NamingPattern.folders("{round}/{person}");
    private static final NamingPattern NAME = NamingPattern.fileName("{item}");

    private static FilingFacts file(String item, String group, String name, long bytes) {
        NameFacts names = new NameFacts("Field season 2027", group, "No group", "Ada Brook", "", "ada@example.org", "L-07", "", item, "PDF", name, Instant.parse("2027-02-01T10:00:00Z"),
                Instant.parse("2027-03-01T10:00:00Z"), ZoneId.of("Europe/London"), "ABCD-EFGH-JKMN", 1);
        return new FilingFacts(names, group.isEmpty() ? List.of() : List.of(group), FileKind.PDF, bytes, false, Identity.IDENTIFIED, Source.PERSONAL_LINK);
    }

    /** Reads "item is X & group is-not Y" or "… | …". */
    private static List<Condition> conditions(String typed) {
        List<Condition> read = new ArrayList<>();
        for (String one : typed.isBlank() ? new String[0] : typed.split(" [&|] ")) {
            String[] words = one.strip().split(" ", 3);
            read.add(new Condition(Subject.valueOf(words[0].toUpperCase()), oakbasket.core.filing.Test.valueOf(words[1].toUpperCase().replace('-', '_')), words[2]));
        }
        return read;
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = ';', nullValues = "none", value = {"notes on a map.txt;2 map,notes", "MAP 3.pdf;1 map", "photo.jpg;3 by kind", "unknown.pdf;1 by kind", "map.jpg;2 map", "no-te.txt;none"})
    void anItemIsSupposedByWordsAndKind(String name, String guess) {
        List<ItemGuess.Item> items = List.of(new ItemGuess.Item(1, "Field map", java.util.Set.of(FileKind.PDF)), new ItemGuess.Item(2, "Notes (map)", java.util.Set.of()),
                new ItemGuess.Item(3, "Pictures", java.util.Set.of(FileKind.IMAGE)));
        assertThat(ItemGuess.of(name, items).map(one -> one.item() + " " + (one.words().isEmpty() ? "by kind" : String.join(",", one.words()))).orElse(null)).isEqualTo(guess);
    }

    /** A tie is no decision, nor is a kind, nor a title whose number is another one. */
    @ParameterizedTest(name = "{0} among {1}: {2}")
    @CsvSource(delimiter = ';', value = {"Payslip 2.pdf;Payslip 1|Payslip 2|Payslip 3;2 sure", "payslip_02.pdf;Payslip 1|Payslip 2;2 sure", "Payslip 4.pdf;Payslip 1|Payslip 2;1 2 unsure", "Payslip 2.pdf;Payslip 1;1 unsure",
        "payslip.pdf;Payslip 1|Payslip 2;1 2 unsure", "payslip.pdf;Payslip 1;1 sure", "scan0001.pdf;Consent|Field map;1 2 unsure", "scan0001.pdf;Consent;1 unsure", "signed map.pdf;Signed consent|Field map;1 2 unsure",
        "field map signed.pdf;Signed consent|Field map;2 sure", "accounts 2026.pdf;Accounts 2025|Notes;1 unsure", "accounts 2025 v2.pdf;Accounts 2025|Accounts 2024;1 sure", "2025.pdf;Accounts 2025|Notes 2025;1 2 unsure",
        "consent consent.pdf;Consent;1 sure", "payslip2.pdf;Payslip 1|Payslip 2;2 sure", "consent12.pdf;Consent;1 sure", "P45.pdf;P60|P45;2 sure", "form 2026.pdf;Form A4;1 sure", "IMG_20260512_101500.pdf;Photo 1|Photo 2;1 2 unsure"})
    void aTieIsNoDecision(String name, String titles, String guess) {
        List<ItemGuess.Item> items = new ArrayList<>();
        for (String title : titles.split("\\|")) {
            items.add(new ItemGuess.Item(items.size() + 1, title, java.util.Set.of(FileKind.PDF)));
        }
        assertThat(ItemGuess.of(name, items).map(one -> one.alike().stream().map(String::valueOf).collect(java.util.stream.Collectors.joining(" ")) + (one.sure() ? " sure" : " unsure")).orElse("none")).isEqualTo(guess);
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = ';', nullValues = "none", value = {"Mere, Hazel - map.pdf;2", "post/HÁZEL MERE/scan0007.pdf;2", "hazel lee mere.pdf;3", "mere.pdf;none", "brook_map.jpg;4", "ada.pdf;none", "brooks.pdf;none",
        "Ольга Фенн.pdf;5", "1.pdf;none", "ada brook and hazel mere.pdf;none"})
    void aPersonIsSupposedByNameWhenItIsOneAlone(String text, Long person) {
        PersonGuess people = new PersonGuess(List.of(new PersonGuess.Person(1, "Tansy Mere"), new PersonGuess.Person(2, "Hazel Mere"), new PersonGuess.Person(3, "Hazel Lee Mere"),
                new PersonGuess.Person(4, "Ada Brook"), new PersonGuess.Person(5, "Ольга Фенн"), new PersonGuess.Person(6, "…")));
        assertThat(people.of(text).map(PersonGuess.Guess::person).orElse(null)).isEqualTo(person);
    }

    private static FilingRule into(String folder, String typed) {
        return FilingRuleBuilder.builder().name(folder).active(true).join(typed.contains(" | ") ? FilingRule.Join.ANY : FilingRule.Join.ALL).conditions(conditions(typed)).place(new Placement(0, folder, ""))
                .copies(List.of()).mark("").tell("").build();
    }

    private static FilingRule also(String mark, String typed) {
        return FilingRuleBuilder.builder(into("", typed)).place(null).also(true).mark(mark).build();
    }

    private static FilingPlan plan(FilingRule... rules) {
        return new FilingPlan(List.of(rules), List.of(), FOLDERS, NAME);
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = ';', value = {
        "item is field BOUNDARY map;true", "item is field boundary;false", "item is-not grant form;true", "group is upper fenn;true", "group is-not upper fenn;false", "group contains FENN;true",
        "group contains-not fenn;false", "name begins scan;true", "name ends .PDF;true", "name ends .xls;false", "name matches scan[0-9]+\\.pdf;true", "name matches scan;false", "person is áda brook;true",
        "email ends @example.org;true", "reference is l-07;true", "organisation is x;false", "round contains 2027;true", "kind is PDF;true", "kind is-not PDF;false", "kind is NONE;false",
        "identity is IDENTIFIED;true", "source is OPEN_LINK;false", "late is NO;true", "size at-least 2;true", "size at-least 3;false", "size at-most 2;true", "size at-most 1;false"})
    void aConditionHoldsOrNot(String condition, boolean holds) {
        FilingDecision decision = plan(into("Maps", condition)).decide(file("Field boundary map", "Upper Fenn", "Scan0001.pdf", 1_025));
        assertThat(decision.placedBy() != null).isEqualTo(holds);
        assertThat(decision.target().place()).isEqualTo(holds ? "Maps/Field boundary map.pdf" : "Field season 2027/Ada Brook/Field boundary map.pdf");
    }

    @Test
    void theFirstRulePlacesAndOthersAdd() {
        FilingRule copying = FilingRuleBuilder.builder(also("", "name ends .pdf")).copies(List.of(new Placement(2, "All/{round}", "{reference} {item}"), new Placement(0, "Maps", ""))).tell("ben@example.org").build();
        FilingPlan plan = new FilingPlan(List.of(into("Forms", "item is Form"), also("map", "item contains map"), into("Maps", "item contains map & group is Upper Fenn")),
                List.of(into("Everything", ""), copying, FilingRuleBuilder.builder(also("off", "")).active(false).build()), FOLDERS, NAME);
        FilingDecision decision = plan.decide(file("Field boundary map", "Upper Fenn", "a.pdf", 1));
        assertThat(decision.placedBy()).isEqualTo(new RuleRef(RuleRef.Level.ROUND, 3, "Maps"));
        assertThat(decision.because()).containsExactlyElementsOf(conditions("item contains map & group is Upper Fenn"));
        assertThat(decision.marks()).containsExactly("map");
        assertThat(decision.tells()).containsExactly("ben@example.org");
        assertThat(decision.copies()).extracting(copy -> copy.by().number() + " " + copy.target().place()).as("none to where it goes itself").containsExactly("2 :2/All/Field season 2027/L-07 Field boundary map.pdf");
        assertThat(decision.also()).extracting(RuleRef::level).containsExactly(RuleRef.Level.ROUND, RuleRef.Level.OFFICE);
        FilingDecision other = plan.decide(file("Field boundary map", "", "a.txt", 1));
        assertThat(other.placedBy()).as("the office's rules come after the round's").isEqualTo(new RuleRef(RuleRef.Level.OFFICE, 1, "Everything"));
        assertThat(other.because()).isEmpty();
    }

    @Test
    void aRuleRenamesOrSendsToTheTray() {
        FilingRule rename = FilingRuleBuilder.builder(into("", "item is Map")).place(new Placement(0, "", "{reference}< - {sender}>")).build();
        assertThat(plan(rename).decide(file("Map", "", "a.pdf", 1)).target().place()).isEqualTo("Field season 2027/Ada Brook/L-07.pdf");
        FilingRule tray = FilingRuleBuilder.builder(into("", "")).place(null).tray(true).build();
        assertThat(plan(tray).decide(file("Map", "", "a.pdf", 1)).tray()).isTrue();
    }

    @Test
    void anyOneIsEnoughWhereItSaysSoAndTheReasonsAreThoseThatHold() {
        FilingDecision decision = plan(into("Maps", "name begins x | item is Map | late is YES")).decide(file("Map", "", "a.pdf", 1));
        assertThat(decision.because()).containsExactlyElementsOf(conditions("item is Map"));
    }

    @ParameterizedTest(name = "{0} then {1}: {2}")
    @CsvSource(delimiter = ';', value = {
        "item is Map; item is Map; true", "item is Map; item is map & late is YES; true", "item contains a; item is Map; true", "item is Map; item contains Map; false",
        "name ends .pdf; name ends scan.pdf; true", "name contains can; name begins scan; true", "name contains-not x; name contains-not xy; false", "name contains-not xy; name contains-not x; true",
        "''; item is Map; true", "item is Map; ''; false", "size at-least 5; size at-least 9; true", "size at-least 9; size at-least 5; false", "late is YES | late is NO; item is Map; true",
        "kind is PDF | kind is IMAGE; kind is IMAGE; true", "kind is-not PDF; kind is IMAGE; true", "kind is PDF; kind is-not IMAGE; false", "item is A | item is B; item is B | item is A; true",
        "item is A; item is A | item is B; false", "group is A; group is A & group is B; true", "group is-not A; group is B; false", "item is-not A; item is B; true", "name matches a.*; name matches a.*; true",
        "identity is-not SELF_DECLARED; identity is CONFIRMED | identity is IDENTIFIED; true", "item is A & late is YES; item is A; false"})
    void aRuleIsShadowedByAnEarlierOne(String earlier, String later, boolean shadowed) {
        RulesCheck.Outcome outcome = check(into("First", earlier.replace("''", "")), into("Second", later.replace("''", "")));
        assertThat(outcome.idle().stream().map(RulesCheck.Idle::shadowedBy).toList()).isEqualTo(shadowed ? List.of(new RuleRef(RuleRef.Level.ROUND, 1, "First")) : List.of());
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = ';', value = {
        "item is Map & item is Form; conditions-exclude", "item is Map & item contains x; conditions-exclude", "late is YES & late is NO; conditions-exclude", "size at-least 9 & size at-most 5; conditions-exclude",
        "name begins a & name begins b; conditions-exclude", "name contains-not a & name contains map; conditions-exclude", "kind is PDF & kind is-not PDF; conditions-exclude", "group is A & group is B; none",
        "group is A & group is-not A; conditions-exclude", "item is Mpa; rule-no-item", "item is Mpa | late is YES; none", "item is Mpa | item is Fomr; rule-no-item", "name begins a & name begins ab; none",
        "size at-least 5 & size at-most 5; none", "item matches M.p; none", "name matches a & name is b; none"})
    void aRuleThatCanNeverActIsPointedOut(String conditions, String why) {
        RulesCheck.Outcome outcome = check(into("X", conditions));
        assertThat(outcome.errors()).isEmpty();
        assertThat(outcome.idle().stream().map(idle -> idle.why().code()).toList()).isEqualTo(why.equals("none") ? List.of() : List.of(why));
    }

    private static RulesCheck.Outcome check(FilingRule... rules) {
        return RulesCheck.check(List.of(rules), RuleRef.Level.ROUND, List.of(), new RulesCheck.Context(List.of("Map", "Form", "A", "B"), root -> root <= 2));
    }

    @Test
    void theOfficesRulesCanBeShadowedByTheRounds() {
        RulesCheck.Outcome outcome = RulesCheck.check(List.of(into("X", "item is A")), RuleRef.Level.OFFICE, List.of(into("All", "")), new RulesCheck.Context(null, root -> true));
        assertThat(outcome.idle()).singleElement().satisfies(idle -> assertThat(idle.why().code()).isEqualTo("rule-shadowed-by-round"));
    }

    @Test
    void whatCannotBeUsedIsToldAtItsField() {
        FilingRule plain = into("A", "");
        Condition none = new Condition(Subject.SIZE, oakbasket.core.filing.Test.IS, "5");
        List<FilingRule> rules = List.of(
                FilingRuleBuilder.builder(plain).conditions(List.of(none, new Condition(Subject.NAME, oakbasket.core.filing.Test.MATCHES, "("), new Condition(Subject.ITEM, oakbasket.core.filing.Test.IS, " "),
                        new Condition(Subject.KIND, oakbasket.core.filing.Test.IS, "PDFS"), new Condition(Subject.SIZE, oakbasket.core.filing.Test.AT_MOST, "-1"))).build(),
                FilingRuleBuilder.builder(plain).place(new Placement(3, "{nobody}", "a/b")).build(),
                FilingRuleBuilder.builder(plain).place(null).build(),
                FilingRuleBuilder.builder(plain).also(true).build(),
                FilingRuleBuilder.builder(plain).tray(true).build(),
                FilingRuleBuilder.builder(plain).place(new Placement(0, "x".repeat(10_000), "")).tell("nobody").mark("m".repeat(41)).build(),
                FilingRuleBuilder.builder(plain).place(new Placement(1, "", "")).copies(List.of(new Placement(0, "", "{item}"))).build());
        RulesCheck.Outcome outcome = check(rules.toArray(FilingRule[]::new));
        assertThat(outcome.errors().stream().map(FilingRulesTest::told).toList()).containsExactly("0.conditions[0].value condition-test", "0.conditions[1].value condition-expression", "0.conditions[2].value condition-value",
                "0.conditions[3].value condition-choice", "0.conditions[4].value condition-size", "1.place.root root-gone", "1.place.folder no-such-field", "1.place.name pattern-slash-in-name",
                "2.effects rule-places-nothing", "3.effects rule-adds-nothing", "4.effects rule-tray-and-folder", "5.mark longest", "5.place.folder pattern-long", "5.tell address-halves", "6.place.folder pattern-missing", "6.copies[0].folder pattern-missing");
        assertThat(check(java.util.Collections.nCopies(201, plain).toArray(FilingRule[]::new)).errors()).extracting(Fault::code).containsExactly("rules-many");
    }

    private static String told(Fault fault) {
        return fault.field().replace("rules[", "").replaceFirst("]", "") + " " + fault.code();
    }

    /** Rules and files put together at random from few words, so that they often meet. */
    private static final class Any {
        private static final String[] CONDITIONS = {"item is Map", "item is Form", "item contains m", "item contains-not f", "item begins fo", "item ends p", "item is-not Map", "group is A", "group is-not A",
            "group contains-not b", "name ends .pdf", "name contains x", "late is YES", "late is NO", "kind is PDF", "kind is-not PDF", "size at-least 5", "size at-most 5", "size at-least 9", "source is OPEN_LINK"};
        private final Random random = new Random(7);

        String one(String... from) {
            return from[random.nextInt(from.length)];
        }

        FilingRule rule(String name) {
            StringBuilder conditions = new StringBuilder();
            String joined = one(" & ", " | ");
            for (int n = random.nextInt(4); n > 0; n--) {
                conditions.append(conditions.isEmpty() ? "" : joined).append(one(CONDITIONS));
            }
            return into(one("Maps", "Forms/{item}", "{group}", "<{organisation}/>x".replace("/", "")) + "/" + name, conditions.toString());
        }

        FilingFacts file() {
            FilingFacts file = FilingRulesTest.file(one("Map", "Form", "Other"), one("", "A", "B"), one("a.pdf", "x.pdf", "x.txt"), 1_024L * random.nextInt(12));
            return FilingFactsBuilder.builder(file).late(random.nextBoolean()).kind(random.nextBoolean() ? FileKind.PDF : null).source(one("OPEN_LINK", "DESK").equals("DESK") ? Source.DESK : Source.OPEN_LINK)
                    .groups(random.nextInt(3) == 0 ? List.of("A", "B") : file.groups()).build();
        }
    }

    @Test
    void whatIsCalledIdleNeverActsAndDecisionsAreAlwaysTheSame() {
        Any any = new Any();
        int idle = 0;
        for (int n = 0; n < 1_500; n++) {
            List<FilingRule> rules = List.of(any.rule("1"), any.rule("2"), any.rule("3"));
            Set<Integer> never = new HashSet<>();
            RulesCheck.check(rules, RuleRef.Level.ROUND, List.of(), new RulesCheck.Context(null, root -> true)).idle().forEach(one -> never.add(one.number()));
            idle += never.size();
            FilingPlan plan = new FilingPlan(rules, List.of(), FOLDERS, NAME);
            for (int f = 0; f < 40; f++) {
                FilingFacts file = any.file();
                FilingDecision decision = plan.decide(file);
                assertThat(decision.placedBy() == null || !never.contains(decision.placedBy().number())).as("%s placed %s", rules, file).isTrue();
                assertThat(new FilingPlan(rules, List.of(), FOLDERS, NAME).decide(file)).isEqualTo(decision);
            }
        }
        assertThat(idle).as("rules called idle").isGreaterThan(300);
    }

    @Test
    void applyingTwiceChangesNothingAndNoTwoFilesMeet() {
        Any any = new Any();
        for (int n = 0; n < 300; n++) {
            FilingPlan plan = plan(any.rule("1"), any.rule("2"));
            Set<String> others = Set.of(ClashNumber.key("Maps/1/Map.pdf"), ClashNumber.key("Forms/Form/2/Form (2).txt"));
            List<TrialRun.Candidate> files = new ArrayList<>();
            List<FilingDecision.Target> targets = new ArrayList<>();
            for (int f = 0; f < 60; f++) {
                targets.add(plan.decide(any.file()).target());
                files.add(new TrialRun.Candidate(f, "Old/" + f % 7 + "/Map (" + (f + 2) + ").pdf", targets.get(f).folderPlace(), targets.get(f).name()));
            }
            List<String> places = new ArrayList<>(files.stream().map(TrialRun.Candidate::from).toList());
            TrialRun.Outcome first = TrialRun.of(files, place -> others.contains(ClashNumber.key(place)));
            first.moves().forEach(move -> places.set((int) move.file(), move.to()));
            assertThat(new HashSet<>(places.stream().map(ClashNumber::key).toList())).as("each a place of its own").hasSize(60).doesNotContainAnyElementsOf(others);
            List<TrialRun.Candidate> again = new ArrayList<>();
            for (int f = 0; f < 60; f++) {
                again.add(new TrialRun.Candidate(f, places.get(f), targets.get(f).folderPlace(), targets.get(f).name()));
            }
            TrialRun.Outcome second = TrialRun.of(again, place -> others.contains(ClashNumber.key(place)));
            assertThat(second.moves()).isEmpty();
            assertThat(second.unchanged()).isEqualTo(60);
            assertThat(first.folders().stream().mapToInt(TrialRun.FolderCount::before).sum()).isEqualTo(60);
            assertThat(first.folders().stream().mapToInt(TrialRun.FolderCount::after).sum()).isEqualTo(60);
            assertThat(second.folders().stream().allMatch(folder -> folder.before() == folder.after())).isTrue();
        }
    }

    /** Two rules that would each give what the other looks for: what they read is what was sent, which no rule changes. */
    @Test
    void rulesThatWouldSendFilesRoundInACircleDoNot() {
        FilingRule there = FilingRuleBuilder.builder(into("There", "name contains here")).place(new Placement(0, "There", "there {original}")).build();
        FilingRule here = FilingRuleBuilder.builder(into("Here", "name contains there")).place(new Placement(0, "Here", "here {original}")).build();
        FilingDecision.Target once = plan(there, here).decide(file("Map", "", "here.pdf", 1)).target();
        FilingDecision.Target again = plan(there, here).decide(file("Map", "", "here.pdf", 1)).target();
        assertThat(TrialRun.of(List.of(new TrialRun.Candidate(1, once.place(), again.folderPlace(), again.name())), place -> false).moves()).isEmpty();
    }

    @ParameterizedTest(name = "{0} may be {1}: {2}")
    @CsvSource({"a.pdf, a.pdf, true", "a (2).pdf, a.pdf, true", "a (10).pdf, a.pdf, true", "a (1).pdf, a.pdf, false", "a (02).pdf, a.pdf, false", "b (2).pdf, a.pdf, false", "a (2).txt, a.pdf, false", "a (x).pdf, a.pdf, false",
        "a (2) (3).pdf, a (2).pdf, true", "a (99999999999).pdf, a.pdf, false"})
    void aNameWithANumberIsKnown(String name, String plain, boolean same) {
        assertThat(ClashNumber.isNumbered(name, plain)).isEqualTo(same);
    }

    @Test
    void placesOfOtherRootsAreWrittenWithTheirNumber() {
        assertThat(Place.of(1, "a/b")).isEqualTo("a/b");
        assertThat(Place.root(":12/a/b")).isEqualTo(12);
        assertThat(Place.path(":12/a/b")).isEqualTo("a/b");
        assertThat(Place.folder(":12/a/b")).isEqualTo(":12/a");
        assertThat(Place.name(":12/a/b")).isEqualTo("b");
        assertThat(Place.folder("b")).isEmpty();
    }
}
