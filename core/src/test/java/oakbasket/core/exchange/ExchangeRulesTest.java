package oakbasket.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import oakbasket.core.fault.Fault;
import oakbasket.core.link.LinkState;
import oakbasket.core.link.LinkWindow;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ExchangeRulesTest {

    private static final Instant NOW = Instant.parse("2026-05-12T09:30:00Z");

    /** Which of put in (P), see (S) and take away (T) the terms name, and which of them hold. */
    @ParameterizedTest(name = "{0}, asks first {1}, said {2}: {3}, names files {4}")
    @CsvSource({
        "PST, false, NONE, PST, true",
        "P, false, NONE, P, false",
        "S, false, NONE, S, true",
        "T, false, NONE, T, true",
        "ST, false, NONE, ST, true",
        "PS, false, NONE, PS, true",
        "PT, false, NONE, PT, true",
        "PST, true, NONE, '', false",
        "PST, true, DECLINED, '', false",
        "PST, true, ACCEPTED, PST, true",
        "T, true, ACCEPTED, T, true",
        // Whoever said something while it was asked, and is not asked any more, may do what the terms say.
        "PT, false, DECLINED, PT, true",
    })
    void whatSomebodyMayDo(String named, boolean asksFirst, ExchangeAnswer answer, String hold, boolean namesFiles) {
        ExchangeRights rights = ExchangeRights.of(terms(named, asksFirst), answer);
        assertThat((rights.putIn() ? "P" : "") + (rights.see() ? "S" : "") + (rights.takeAway() ? "T" : "")).isEqualTo(hold);
        assertThat(rights.namesFiles()).isEqualTo(namesFiles);
    }

    @ParameterizedTest(name = "link {0}, asks first {1}, said {2}: {3}")
    @CsvSource({
        "LIVE, false, NONE, LIVE",
        "LIVE, true, NONE, INVITED",
        "LIVE, true, DECLINED, DECLINED",
        "LIVE, true, ACCEPTED, LIVE",
        "WAITING, true, NONE, WAITING",
        "PAUSED, true, ACCEPTED, PAUSED",
        "ENDED, true, NONE, ENDED",
        "USED_UP, false, NONE, ENDED",
        "WITHDRAWN, true, DECLINED, WITHDRAWN",
    })
    void howItStands(LinkState link, boolean asksFirst, ExchangeAnswer answer, ExchangeState state) {
        assertThat(ExchangeState.of(terms("PST", asksFirst), answer, link)).isEqualTo(state);
    }

    @ParameterizedTest(name = "{0} after {1}: {2}")
    @CsvSource({
        "ACCEPTED, NONE, true", "DECLINED, NONE, true", "ACCEPTED, DECLINED, true",
        "DECLINED, ACCEPTED, false", "ACCEPTED, ACCEPTED, false", "DECLINED, DECLINED, false", "NONE, DECLINED, false", "NONE, NONE, false",
    })
    void whatCanStillBeSaid(ExchangeAnswer next, ExchangeAnswer before, boolean may) {
        assertThat(before.mayBecome(next)).isEqualTo(may);
    }

    @Test
    void whatWasTypedIsCheckedFieldByField() {
        assertThat(codes("Boundary papers", "", "P", 14, "")).isEmpty();
        assertThat(codes("", "", "", 14, "")).containsExactly("title exchange-title-missing", "putIn exchange-nothing-allowed");
        assertThat(codes(" \t", "x".repeat(4_001), "S", 14, "")).containsExactly("title exchange-title-missing", "message longest");
        assertThat(codes("x".repeat(151), "x".repeat(4_000), "T", 180, "")).containsExactly("title longest");
        assertThat(codes("x".repeat(150) , "", "T", 1, "")).isEmpty();
        assertThat(codes("Two\nlines", "", "T", 0, "")).containsExactly("title one-line", "ends link-end-past");
        assertThat(codes("Papers", "", "PST", 14, "ab")).singleElement().asString().startsWith("passcode ");
    }

    private static List<String> codes(String title, String message, String named, int days, String passcode) {
        LinkWindow window = new LinkWindow(NOW, null, NOW.plus(Duration.ofDays(days)).atZone(ZoneOffset.UTC).toInstant());
        List<Fault> faults = ExchangeCheck.faults(new ExchangeCheck.Typed(title, message, terms(named, false), window, passcode), NOW);
        return faults.stream().map(fault -> fault.field() + " " + fault.code()).toList();
    }

    private static ExchangeTerms terms(String named, boolean asksFirst) {
        return new ExchangeTerms(named.contains("P"), named.contains("S"), named.contains("T"), asksFirst);
    }
}
