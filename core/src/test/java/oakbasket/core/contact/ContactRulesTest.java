package oakbasket.core.contact;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import oakbasket.core.identity.MailAddress;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ContactRulesTest {

    /** Source: Winkler 1990, the published table of names; values given to three places. */
    @ParameterizedTest
    @CsvSource({"MARTHA, MARHTA, 0.961", "DIXON, DICKSONX, 0.813", "DWAYNE, DUANE, 0.840"})
    void nearNamesAreMeasuredAsPublished(String one, String other, double likeness) {
        assertThat(JaroWinkler.similarity(one, other)).isEqualTo(likeness, within(0.0005));
    }

    /** Source: commons-text, an implementation of the same measure that nobody here wrote, on 20,000 random pairs of short words. */
    @Test
    void nearNamesAreMeasuredAsTheReferenceDoes() {
        var reference = new org.apache.commons.text.similarity.JaroWinklerSimilarity();
        Random random = new Random(7);
        for (int i = 0; i < 20_000; i++) {
            String one = word(random);
            String other = word(random);
            // The reference adds the weight of the prefix only from 0.7 on, as some variants do; below it both agree that names are not alike.
            double theirs = reference.apply(one, other);
            double ours = JaroWinkler.similarity(one, other);
            assertThat(theirs < 0.7 ? ours < 0.82 : Math.abs(theirs - ours) < 1e-9).as("%s %s: %s, %s", one, other, ours, theirs).isTrue();
        }
    }

    private static String word(Random random) {
        StringBuilder word = new StringBuilder();
        for (int n = 1 + random.nextInt(8); n > 0; n--) {
            word.append((char) ('a' + random.nextInt(4)));
        }
        return word.toString();
    }

    @ParameterizedTest(name = "{0} {1} = {2} {3}: {4}")
    @CsvSource({
        "Ada Brook,   Brook Farm,  'Brook, Ada',  'BROOK  FARM', true",
        "Ada Brook,   Brook Farm,  Ada Brook,     Reed & Sons,   false",
        "Zoë Réed,    '',          Zoe Reed,      '',            true",
        "Ada Brook,   '',          Adam Brook,    '',            false"})
    void theSamePersonIsFoundByNameAndOrganisation(String name, String organisation, String other, String otherOrganisation, boolean same) {
        assertThat(SamePerson.key(name, organisation).equals(SamePerson.key(other, otherOrganisation))).isEqualTo(same);
    }

    /** Common practice, no source: which endings people mistype. The addresses are made up; nothing is sent to them. */
    @ParameterizedTest(name = "{0} → {1}")
    @CsvSource({
        "ada@gmial.com,        ada@gmail.com",
        "ada@gmail.con,        ada@gmail.com",
        "ada@gmai.com,         ada@gmail.com",
        "ada@gmaill.com,       ada@gmail.com",
        "ada@hotmial.com,      ada@hotmail.com",
        "ada@example.ogr,      ada@example.org",
        "ada@example.co.ul,    ada@example.co.uk",
        "Ada.B@yaho.com,       Ada.B@yahoo.com",
        "ada@gmail.com,        -",
        "ada@example.org,      -",
        "ada@mail.com,         -",
        "ada@email.com,        -",
        "ada@live.de,          -",
        "ada@gmx.com,          -",
        "ada@yahoo.fr,         -",
        "ada@gmial.con,        ada@gmail.com",
        "ada@gmail.om,         ada@gmail.com",
        "ada@gmailx.com,       ada@gmail.com",
        "ada@gmxil.com,        ada@gmail.com",
        "ada@gmxxl.com,        -",
        "ada@gmaxxil.com,      -",
        "ada@gmilx.com,        -",
        "ada@xmail.com,        -",
        "ada@gm.com,           -",
        "ada@GMAIL.COM,        -"})
    void slipsOfWellKnownEndingsAreSuggested(String typed, String meant) {
        assertThat(AddressSlip.suggestion(MailAddress.parse(typed)).orElse("-")).isEqualTo(meant);
    }

    @ParameterizedTest(name = "[{0}] → {1}")
    @CsvSource({
        "'E-mail|Name|Group',               EMAIL NAME GROUPS",
        "'Surname|First name|E-Mail Address|Farm|Ref.|Tz', LAST_NAME FIRST_NAME EMAIL ORGANISATION REFERENCE ZONE",
        "'name|name|mail',                  NAME NONE EMAIL",
        "'shoe size|e_mail',                NONE EMAIL"})
    void columnsAreKnownByTheirHeaders(String headers, String columns) {
        List<String> row = List.of(headers.split("\\|"));
        assertThat(ContactColumn.isHeader(row)).isTrue();
        assertThat(ContactColumn.byHeaders(row).stream().map(Enum::name)).containsExactly(columns.split(" "));
    }

    @Test
    void columnsWithoutHeadersAreKnownByWhatStandsInThem() {
        List<List<String>> rows = List.of(List.of("17", "Ada Brook", "ada@example.org", "Brook Farm"), List.of("18", "Ben Reed", "ben@example.org", ""));
        assertThat(ContactColumn.isHeader(rows.get(0))).isFalse();
        assertThat(ContactColumn.byContent(rows)).containsExactly(ContactColumn.NONE, ContactColumn.NAME, ContactColumn.EMAIL, ContactColumn.ORGANISATION);
    }

    @Test
    void aRowIsReadByTheMeaningOfItsColumns() {
        List<ContactColumn> columns = List.of(ContactColumn.LAST_NAME, ContactColumn.NONE, ContactColumn.EMAIL, ContactColumn.FIRST_NAME, ContactColumn.GROUPS, ContactColumn.NOTES);
        ContactFields read = ContactColumn.read(columns, List.of("Brook", "x", " ada@example.org ", "Ada", "East; West |East", "'=not a formula"));
        assertThat(read).isEqualTo(new ContactFields("Ada Brook", "ada@example.org", "", "", "", "", "=not a formula", List.of("East", "West")));
        assertThat(ContactColumn.read(columns, List.of("Brook")).email()).isEmpty();
    }

    @ParameterizedTest(name = "{0}={1}: {2}")
    @CsvSource({
        "email,     nobody,           address-halves",
        "name,      '',               contact-name",
        "language,  klingonese-x-,    not-a-language",
        "language,  english,          not-a-language",
        "zone,      Mars/Olympus,     not-this-zone",
        "reference, a\tb,             longest-line"})
    void fieldsThatCannotBeKeptAreNamed(String field, String value, String detail) {
        Map<String, String> given = Map.of(field, value);
        ContactFields fields = new ContactFields(given.getOrDefault("name", "Ada"), given.getOrDefault("email", "ada@example.org"), "", given.getOrDefault("reference", ""),
                given.getOrDefault("language", "cy"), given.getOrDefault("zone", "Europe/London"), "", List.of());
        assertThat(fields.faults()).singleElement().satisfies(fault -> {
            assertThat(fault.field()).isEqualTo(field);
            assertThat(fault.code()).isEqualTo(detail);
        });
    }

    /** Of two contacts that become one, what the kept one knows stays and what it does not know is taken from the other. */
    @Test
    void joiningFillsWhatIsEmptyAndKeepsWhatIsThere() {
        ContactFields kept = new ContactFields("Ada Brook", "ada@example.org", "", "L-1", "", "Europe/London", "", List.of("East", "North"));
        ContactFields gone = new ContactFields("A. Brook", "a.brook@example.net", "Brook Farm", "L-9", "cy", "", "rings on Fridays", List.of("West", "East"));
        assertThat(kept.over(gone)).isEqualTo(new ContactFields("Ada Brook", "ada@example.org", "Brook Farm", "L-1", "cy", "Europe/London", "rings on Fridays",
                List.of("West", "East", "North")));
    }

    @ParameterizedTest(name = "{0} groups of {1} letters: {2}")
    @CsvSource({"0, 5, true", "50, 5, true", "51, 5, false", "1, 100, true", "1, 101, false"})
    void groupsHaveTheirLimits(int count, int letters, boolean kept) {
        List<String> groups = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            groups.add(("g" + i + "x".repeat(letters)).substring(0, letters));
        }
        assertThat(new ContactFields("Ada", "ada@example.org", "", "", "", "", "", groups).faults().isEmpty()).isEqualTo(kept);
    }

    @ParameterizedTest(name = "[{0}] is read as [{1}]")
    @CsvSource(quoteCharacter = '`', value = {"'=1, =1", "''=1, '=1", "'+44, +44", "O'Brien, O'Brien", "'quoted', 'quoted'", "'', ''", "', '", "'-, -", "'@x, @x"})
    void aGuardIsTakenOffAndAnyOtherQuoteMarkStays(String cell, String read) {
        assertThat(ContactColumn.read(List.of(ContactColumn.NOTES), List.of(cell)).notes()).isEqualTo(read);
    }

    /** Known: Ada Brook of Brook Farm in group East. A line is {@code name|email|organisation|groups}. */
    @ParameterizedTest(name = "{0} → {1} {2}")
    @CsvSource(delimiter = '!', value = {
        "Ben Reed|ben@example.org||              ! ADDED     ! ''",
        "|ben@example.org||                      ! ADDED     ! named-for-now [ben]",
        "Ada Brook|ADA@Example.org|Brook Farm|   ! UNCHANGED ! ''",
        "|ada@example.org||                      ! UNCHANGED ! ''",
        "Ada Brook|ada@example.org||East;West    ! CHANGED   ! groups",
        "Ada B.|ada@example.org|Reed|            ! CHANGED   ! name organisation",
        "Brook, Ada|ada@example.net|Brook Farm|  ! ADDED     ! same-person-as [ada@example.org]",
        "Ben|ben@gmial.com||                     ! ADDED     ! perhaps-meant [ben@gmail.com]",
        "Ben|ben at example||                    ! REFUSED   ! address-halves",
        "Ben|||                                  ! REFUSED   ! address-missing"})
    void anImportSaysWhatWouldBecomeOfALine(String line, ImportPlan.Verdict verdict, String words) {
        ImportPlan.Line judged = plan(line).lines().get(0);
        assertThat(judged.verdict()).isEqualTo(verdict);
        assertThat(String.join(" ", judged.changes()) + judged.remarks().stream().map(remark -> remark.code() + " " + remark.arguments()).toList() + judged.reason().code()).contains(words);
    }

    @Test
    void aLineThatRepeatsAnAddressIsJudgedAgainstTheLineBefore() {
        ImportPlan plan = plan("Ben|ben@example.org||East", "Ben|BEN@example.org||East", "Ben|ben@example.org||West", "x|y||");
        assertThat(plan.lines().stream().map(ImportPlan.Line::verdict)).containsExactly(ImportPlan.Verdict.ADDED, ImportPlan.Verdict.UNCHANGED, ImportPlan.Verdict.CHANGED,
                ImportPlan.Verdict.REFUSED);
        assertThat(plan.lines().get(2).result().groups()).containsExactly("East", "West");
        assertThat(plan.count(ImportPlan.Verdict.CHANGED)).isEqualTo(1);
    }

    private static ImportPlan plan(String... lines) {
        Map<String, ContactFields> known = Map.of("ada@example.org", new ContactFields("Ada Brook", "ada@example.org", "Brook Farm", "L-1", "", "", "", List.of("East")));
        List<ImportPlan.Row> rows = new ArrayList<>();
        for (String line : lines) {
            String[] cells = Arrays.copyOf(line.strip().split("\\|", -1), 4);
            rows.add(new ImportPlan.Row(rows.size() + 1, new ContactFields(cells[0], cells[1], cells[2], "", "", "", "", List.of(cells[3].split(";")))));
        }
        return ImportPlan.of(rows, known, address -> true);
    }

    /** What is known of Ada is her name, farm, reference and group; every field that a row says otherwise is named. */
    @Test
    void everyChangedFieldIsNamed() {
        Map<String, ContactFields> known = Map.of("ada@example.org", new ContactFields("Ada Brook", "ada@example.org", "Brook Farm", "L-1", "", "", "", List.of("East")));
        ContactFields typed = new ContactFields("Ada B.", "ada@example.org", "Reed", "L-2", "cy", "Europe/London", "rings", List.of("West"));
        assertThat(ImportPlan.of(List.of(new ImportPlan.Row(1, typed)), known, address -> true).lines().get(0).changes())
                .containsExactly("name", "organisation", "reference", "language", "zone", "notes", "groups");
    }

    @ParameterizedTest(name = "{0} of {1} characters: {2}")
    @CsvSource({"organisation, 200, true", "organisation, 201, false", "reference, 100, true", "reference, 101, false", "notes, 10000, true", "notes, 10001, false", "name, 200, true", "name, 201, false"})
    void fieldsHaveTheirLengths(String field, int length, boolean kept) {
        String text = "x".repeat(length);
        ContactFields fields = new ContactFields(field.equals("name") ? text : "Ada", "ada@example.org", field.equals("organisation") ? text : "", field.equals("reference") ? text : "", "", "",
                field.equals("notes") ? text : "", List.of());
        assertThat(fields.faults()).hasSize(kept ? 0 : 1);
    }

    /** A long text is told in brief: the first 40 characters. */
    @ParameterizedTest
    @CsvSource({"40, false", "41, true"})
    void aLongFaultyTextIsToldInBrief(int length, boolean cut) {
        String zone = "Z".repeat(length);
        assertThat(new ContactFields("Ada", "ada@example.org", "", "", "", zone, "", List.of()).faults().get(0).arguments())
                .containsExactly(cut ? zone.substring(0, 40) + "…" : zone);
    }

    /** A table is [row|row], a row is cells parted by commas. */
    @ParameterizedTest(name = "[{0}]: {1}")
    @CsvSource(delimiter = '!', value = {
        "a@x.org,17|b@x.org,18               ! EMAIL NONE",
        "a@x.org,Ada|b,Ben                   ! NAME ORGANISATION",
        "a@x.org,Ada|b@x.org,Ben|c,Cy        ! EMAIL NAME",
        "Ada,Farm,Third,a@x.org              ! NAME ORGANISATION NONE EMAIL",
        "Ada,a@x.org|Ben                     ! NAME ORGANISATION",
        "a@x.org,a@x.org                     ! EMAIL NAME"})
    void columnsWithoutHeadersAreKnownByTheGreaterPartOfTheirCells(String table, String columns) {
        List<List<String>> rows = Arrays.stream(table.split("\\|")).map(row -> List.of(row.split(","))).toList();
        assertThat(ContactColumn.byContent(rows).stream().map(Enum::name)).containsExactly(columns.split(" "));
    }

    @ParameterizedTest(name = "[{0}]: {1}")
    @CsvSource(delimiter = '!', value = {"Name,E-mail ! true", "shoe size,colour ! false", "Name,ada@example.org ! false", "17,Email ! true"})
    void aHeaderNamesAColumnAndHoldsNoAddress(String row, boolean header) {
        assertThat(ContactColumn.isHeader(List.of(row.split(",")))).isEqualTo(header);
    }

    /** Source: Winkler 1990, the strings MARTHA and MARHTA of his table: 0.961. Case, accents and the order of the parts do not matter. */
    @ParameterizedTest(name = "{0} and {1}: {2} percent")
    @CsvSource({"MARTHA, MARHTA, 96", "Ada Brook, ADA BROOK, 100", "'Brook, Ada', Ada Brook, 100", "Zoë Reed, Zoe Reed, 100", "Ada, Quentin, 0"})
    void namesAreAlikeByTheirLetters(String one, String other, int percent) {
        assertThat((int) (100 * SamePerson.likeness(one, other))).isEqualTo(percent);
    }
}
