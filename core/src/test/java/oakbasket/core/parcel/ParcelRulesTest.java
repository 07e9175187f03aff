package oakbasket.core.parcel;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Collections;
import java.util.List;
import java.util.stream.IntStream;
import oakbasket.core.fault.Fault;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.link.LinkWindow;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ParcelRulesTest {

    private static final Instant NOW = Instant.parse("2026-05-12T09:30:00Z");
    private static final ZoneId LONDON = ZoneId.of("Europe/London");

    /** Hours from now: when it was handed out, begins, ends, was stopped, was purged; "-" where it never was. */
    @ParameterizedTest(name = "out {0}, begins {1}, ends {2}, stopped {3}, purged {4}: {5}, a stranger finds {6}")
    @CsvSource({
        "-, -, 24, -, -, DRAFT, UNKNOWN",
        "-1, -, 24, -, -, LIVE, ADMITTED",
        "-1, 2, 24, -, -, WAITING, NOT_YET_BEGUN",
        "-48, -, 0, -, -, ENDED, ENDED", // its end is the first moment at which it cannot be taken
        "-48, -, -1, -, -, ENDED, ENDED",
        "-48, -, 24, -2, -, STOPPED, UNKNOWN",
        "-48, -, -1, -2, -, STOPPED, UNKNOWN",
        "-48, 3, 24, -2, -, STOPPED, UNKNOWN",
        "-999, -, -99, -, -1, PURGED, ENDED",
        "-999, -, -99, -200, -1, PURGED, ENDED",
    })
    void aParcelStandsAndAdmits(String out, String begins, String ends, String stopped, String purged, ParcelState state, PickUpAdmission found) {
        ParcelTerms terms = new ParcelTerms(at(out), new LinkWindow(NOW.minus(Duration.ofDays(3)), at(begins), at(ends)), at(stopped), at(purged));
        assertThat(ParcelState.of(terms, NOW)).isEqualTo(state);
        assertThat(PickUpAdmission.decide(terms, false, true, NOW)).isEqualTo(found);
        assertThat(PickUpAdmission.decide(terms, true, true, NOW)).as("whose own link was withdrawn").isEqualTo(PickUpAdmission.UNKNOWN);
        assertThat(PickUpAdmission.decide(terms, false, false, NOW)).as("without the passcode").isEqualTo(found == PickUpAdmission.ADMITTED ? PickUpAdmission.PASSCODE_NEEDED : found);
        assertThat(PickUpAdmission.decide(null, false, true, NOW)).isEqualTo(PickUpAdmission.UNKNOWN);
    }

    private static Instant at(String hours) {
        return hours.equals("-") ? null : NOW.plus(Duration.ofHours(Long.parseLong(hours)));
    }

    /** A link lives 180 days at most, still one second before (common practice, no source). */
    @Test
    void aParcelWithoutAnEndEndsAfter180Days() {
        ParcelTerms terms = new ParcelTerms(NOW, new LinkWindow(NOW, null, null), null, null);
        Instant end = NOW.plus(Duration.ofDays(180));
        assertThat(ParcelState.of(terms, end.minusSeconds(1))).isEqualTo(ParcelState.LIVE);
        assertThat(ParcelState.of(terms, end)).isEqualTo(ParcelState.ENDED);
    }

    /** One of 14 days warns in its second half, a long one 14 days before its end. */
    @ParameterizedTest(name = "{0} days, after {1}: {2}")
    @CsvSource({"14, 0, false", "14, 6, false", "14, 8, true", "14, 14, false", "1, 0, false", "180, 100, false", "180, 165, false", "180, 167, true"})
    void itWarnsBeforeItEnds(int days, int after, boolean warns) {
        ParcelTerms terms = new ParcelTerms(NOW, LinkWindow.ofDays(NOW, null, days, LONDON), null, null);
        assertThat(ParcelState.endsSoon(terms, NOW.plus(Duration.ofDays(after)))).isEqualTo(warns);
    }

    private static ParcelCheck.Typed typed(String title, Integer most, int kept, List<Person> people) {
        return new ParcelCheck.Typed(title, "", LinkWindow.ofDays(NOW, null, 14, LONDON), "", most, kept, people);
    }

    private static List<String> codes(List<Fault> faults) {
        return faults.stream().map(fault -> fault.field() + " " + fault.code()).toList();
    }

    @Test
    void whatWasTypedIsCheckedFieldByField() {
        Person ada = new Person("Ada", MailAddress.parse("Ada@example.org"));
        Person again = new Person("A. Brook", MailAddress.parse("ada@EXAMPLE.org"));
        assertThat(ParcelCheck.faults(typed("", null, 30, List.of(ada)), NOW)).as("a draft need not be complete").isEmpty();
        assertThat(codes(ParcelCheck.faults(typed("x".repeat(151), 0, 366, List.of(ada, again)), NOW))).containsExactly("title longest", "mostPickUps link-number", "keptDays parcel-kept-days", "people parcel-person-twice");
        assertThat(codes(ParcelCheck.faults(typed("two\nlines", 1_001, -1, List.of()), NOW))).containsExactly("title one-line", "mostPickUps link-number", "keptDays parcel-kept-days");
        assertThat(ParcelCheck.faults(typed("x".repeat(150), 1_000, 365, List.of(ada)), NOW)).isEmpty();
        ParcelCheck.Typed late = new ParcelCheck.Typed("t", "m".repeat(4_001), new LinkWindow(NOW, null, NOW), "short", null, 0, List.of());
        assertThat(codes(ParcelCheck.faults(late, NOW))).containsExactly("message longest", "ends link-end-past", "passcode passcode-length");
        List<Person> many = IntStream.range(0, 1_001).mapToObj(n -> new Person("P", MailAddress.parse("p" + n + "@example.org"))).toList();
        assertThat(codes(ParcelCheck.faults(typed("t", null, 0, many), NOW))).containsExactly("people parcel-people");
        assertThat(codes(ParcelCheck.faults(typed("t", null, 0, Collections.nCopies(2, ada)), NOW))).containsExactly("people parcel-person-twice");
    }

    @Test
    void whatIsMissingKeepsItFromBeingHandedOut() {
        assertThat(codes(ParcelCheck.faultsOfHandingOut(" ", 0, List.of(), 0, false))).containsExactly("title parcel-title-missing", "files parcel-without-files", "people parcel-without-people");
        assertThat(codes(ParcelCheck.faultsOfHandingOut("t", 2, List.of("b.pdf"), 1, false))).containsExactly("files parcel-files-missing");
        assertThat(ParcelCheck.faultsOfHandingOut("t", 1, List.of(), 0, true)).isEmpty();
        assertThat(ParcelCheck.faultsOfHandingOut("t", 1, List.of(), 1, false)).isEmpty();
    }
}
