package oakbasket.core.identity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import oakbasket.core.fault.FaultyValue;
import oakbasket.core.fault.Remark;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PeopleLinesTest {

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', value = {
        "Ada Brook <ada@example.org>        | Ada Brook=ada@example.org",
        "ada@example.org                    | ada=ada@example.org",
        "'\"Brook, Ada\" <ada@example.org>' | Brook, Ada=ada@example.org",
        "Ada Brook, ada@example.org         | Ada Brook=ada@example.org",
        "ada@example.org; Ada Brook         | Ada Brook=ada@example.org",
        "Ada <a@example.org>, Ben <b@example.org>; <c@example.org> | Ada=a@example.org Ben=b@example.org c=c@example.org",
        "Zoë Ångström <zoe@bücher.example>  | Zoë Ångström=zoe@bücher.example"})
    void readsTheWaysPeopleWriteThem(String line, String people) {
        assertThat(String.join(" ", PeopleLines.parse(line).people().stream().map(p -> p.name() + "=" + p.address()).toList())).isEqualTo(people);
    }

    @Test
    void mergesTheSameAddressAndTellsBadLinesWithTheirNumber() {
        PeopleLines read = PeopleLines.parse("ada@example.org\n\nAda Brook <ADA@Example.ORG>\r\nBen at example.org\nCy <cy@localhost>\n\tDee\tdee@example.net");
        assertThat(read.people()).extracting(Person::name).containsExactly("Ada Brook", "Dee");
        assertThat(read.merged()).isEqualTo(1);
        assertThat(read.refused()).extracting(PeopleLines.Refused::line).containsExactly(4, 5);
        assertThat(read.refused().get(0).reason()).isEqualTo(Remark.of("line-without-address"));
        assertThat(read.refused().get(1).reason()).isEqualTo(Remark.of("address-domain", "localhost"));
    }

    /** RFC 5321 §4.5.3.1: 64 octets of local part; 254 octets in all follow from the 256-octet path with its brackets. */
    @ParameterizedTest(name = "local part of {0}, {1} octets in all: {2}")
    @CsvSource({"64, 100, true", "65, 100, false", "60, 254, true", "60, 255, false"})
    void addressesKeepTheLimitsOfMail(int local, int total, boolean allowed) {
        StringBuilder domain = new StringBuilder();
        while (domain.length() < total - local - 1 - 4) {
            domain.append("d".repeat(Math.min(50, total - local - 1 - 4 - domain.length() - 1))).append('.');
        }
        String address = "a".repeat(local) + "@" + domain + "test";
        assertThat(address).hasSize(total);
        if (allowed) {
            assertThat(MailAddress.parse(address).text()).isEqualTo(address);
        } else {
            assertThatThrownBy(() -> MailAddress.parse(address)).isInstanceOfSatisfying(FaultyValue.class, problem -> assertThat(problem.reason())
                    .isEqualTo(local > 64 ? Remark.of("address-local-long", local, 64) : Remark.of("address-long", total, 254)));
        }
    }

    /** RFC 5322 §3.4.1 (quoted local parts, no control characters); IDNA for international domains. */
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = '|', value = {
        "'\"a b\"@example.org' | true", "a.b+c@example.co.uk | true", "x@münchen.example | true", "a@example | false", "a@b@example.org | false",
        "a..b@example.org | false", ".a@example.org | false", "@example.org | false", "a@ | false", "a b@example.org | false",
        "'a@example.org\nBcc: x@example.org' | false", "a@-x.example | false", "a@example..org | false", "a@192.168.1.1 | false"})
    void addressesKeepTheSyntaxOfMail(String address, boolean allowed) {
        if (allowed) {
            assertThat(MailAddress.parse(address).key()).contains("@");
        } else {
            assertThatThrownBy(() -> MailAddress.parse(address)).isInstanceOf(IllegalArgumentException.class);
        }
    }

    @Test
    void internationalDomainsInBothFormsAreOneMailbox() {
        assertThat(MailAddress.parse("Zoe@Bücher.example").key()).isEqualTo(MailAddress.parse("zoe@xn--bcher-kva.example").key());
    }

    @Test
    void everyLineIsReadOrRefusedAndNothingReadCouldBreakAMailHeader() {
        String[] pieces = {"Ada", "Brook", "<", ">", "@", "ada@example.org", "ben@example.net", ",", ";", "\t", "\"", " ", "\u0000", "\u2028", "\u202E", "<ada@example.org>", "é", "..", "@localhost"};
        java.util.Random random = new java.util.Random(11);
        int people = 0;
        for (int n = 0; n < 20_000; n++) {
            StringBuilder line = new StringBuilder();
            for (int i = 1 + random.nextInt(6); i > 0; i--) {
                line.append(pieces[random.nextInt(pieces.length)]);
            }
            PeopleLines read = PeopleLines.parse(line.toString());
            people += read.people().size();
            boolean blank = line.toString().lines().allMatch(String::isBlank) && line.toString().strip().isEmpty();
            assertThat(read.people().isEmpty() && read.refused().isEmpty()).as("[%s]", line).isEqualTo(blank || line.toString().replaceAll("\\R", "").isBlank());
            for (Person person : read.people()) {
                assertThat(person.name() + person.address().text()).doesNotContainPattern("\\p{Cntrl}");
                assertThat(new MailAddress(person.address().text())).isEqualTo(person.address());
            }
        }
        assertThat(people).isGreaterThan(1_000);
    }

    @ParameterizedTest(name = "[{0}]: {1}")
    @CsvSource(delimiter = '|', value = {"ada@ | address-halves [ada@]", "@example.org | address-halves [@example.org]", "a b@example.org | address-local [a b]", "'' | address-missing []"})
    void whatIsMissingInAnAddressIsTold(String typed, String problem) {
        assertThatThrownBy(() -> MailAddress.parse(typed)).isInstanceOfSatisfying(FaultyValue.class,
                refused -> assertThat(refused.reason().code() + " " + refused.reason().arguments()).isEqualTo(problem));
    }

    @ParameterizedTest
    @CsvSource({"60, false", "61, true"})
    void aLongFaultyAddressIsToldInBrief(int length, boolean cut) {
        String typed = "x".repeat(length);
        assertThatThrownBy(() -> MailAddress.parse(typed)).isInstanceOfSatisfying(FaultyValue.class,
                refused -> assertThat(refused.reason().arguments()).containsExactly(cut ? typed.substring(0, 60) + "…" : typed));
    }

    /** Also a line of spaces is read at once. */
    @Timeout(10)
    @ParameterizedTest
    @CsvSource({"10000, false", "10001, true"})
    void aLineHasItsLength(int length, boolean refused) {
        String line = " ".repeat(length - 15) + "ada@example.org";
        assertThat(PeopleLines.parse(line).refused().isEmpty()).isEqualTo(!refused);
    }
}
