package oakbasket.core.allowance;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Map;
import oakbasket.core.deadline.ThreeClocks;
import oakbasket.core.fault.Fault;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AllowanceTest {

    private static final Instant NOW = Instant.parse("2026-06-01T22:30:00Z");
    private static final Instant LATER = NOW.plusSeconds(60);
    private static final ZoneId ATHENS = ZoneId.of("Europe/Athens");

    private static final LocalDate DEADLINE = LocalDate.of(2026, 6, 1);

    @Test
    void eachChangeChangesOneThingAndCanBeTakenBack() {
        Allowance all = Allowance.NONE.after(new AllowanceChange.Extend(LocalDate.of(2026, 7, 1), " away "), NOW).after(new AllowanceChange.ExcuseAll(true), NOW)
                .after(new AllowanceChange.ExcuseItem(3, true), NOW).after(new AllowanceChange.Pause(true), NOW).after(new AllowanceChange.Remove(true), NOW)
                .after(new AllowanceChange.Note("rings on Fridays "), NOW);
        assertThat(all).isEqualTo(new Allowance(LocalDate.of(2026, 7, 1), "away", NOW, Map.of(3L, NOW), NOW, NOW, "rings on Fridays"));
        Allowance none = all.after(new AllowanceChange.Extend(null, "whatever"), LATER).after(new AllowanceChange.ExcuseAll(false), LATER)
                .after(new AllowanceChange.ExcuseItem(3, false), LATER).after(new AllowanceChange.Pause(false), LATER).after(new AllowanceChange.Remove(false), LATER)
                .after(new AllowanceChange.Note(""), LATER);
        assertThat(none).isEqualTo(Allowance.NONE);
    }

    @Test
    void sayingAgainWhatHoldsAlreadyChangesNothing() {
        Allowance excused = Allowance.NONE.after(new AllowanceChange.ExcuseAll(true), NOW).after(new AllowanceChange.ExcuseItem(1, true), NOW);
        assertThat(excused.after(new AllowanceChange.ExcuseAll(true), LATER).after(new AllowanceChange.ExcuseItem(1, true), LATER)).isEqualTo(excused);
    }

    /** It is 2 June in Athens already, and the round's own deadline ends with 1 June or the day given. */
    @ParameterizedTest(name = "{0} because [{1}] with the deadline {3}: {2}")
    @CsvSource({
        "2026-06-09,  away, date, 2026-06-10",
        "2026-06-10,  away, -,    2026-06-10",
        "2026-06-01,  away, date, 2026-06-01",
        "2026-06-02,  away, -,    2026-06-01",
        "2026-06-02,  ' ',  reason, 2026-06-01",
        "+12026-06-02, away, date, 2026-06-01",
        "9999-12-31,  away, -,    2026-06-01",
        "-,           '',   -,    2026-06-01"})
    void anExtensionIsNeitherBeforeTodayNorBeforeTheDeadlineAndHasAReason(String until, String reason, String field, LocalDate deadline) {
        AllowanceChange change = new AllowanceChange.Extend(until.equals("-") ? null : LocalDate.parse(until), reason);
        assertThat(change.fault(NOW, ATHENS, deadline).map(Fault::field).orElse("-")).isEqualTo(field);
    }

    @Test
    void aNoteHasAnEnd() {
        assertThat(new AllowanceChange.Note("x".repeat(501)).fault(NOW, ATHENS, DEADLINE)).hasValueSatisfying(fault -> assertThat(fault.field()).isEqualTo("text"));
        assertThat(new AllowanceChange.Note("x".repeat(500)).fault(NOW, ATHENS, DEADLINE)).isEmpty();
    }

    @ParameterizedTest(name = "deadline 10 June, links shut {0}, kept until {1}: {2}")
    @CsvSource({
        "-,                    -,          -",
        "2026-06-10T12:00:00Z, 2026-06-11, -",
        "2026-06-10T11:59:59Z, -,          closing-before-deadline",
        "-,                    2026-06-10, kept-too-briefly",
        "2026-06-20T21:30:00Z, 2026-06-21, kept-too-briefly",
        "2026-06-20T21:30:00Z, 2026-06-22, -"})
    void theThreeClocksComeInTheirOrder(String closing, String keepUntil, String fault) {
        ThreeClocks clocks = new ThreeClocks(Instant.parse("2026-06-10T12:00:00Z"), closing.equals("-") ? null : Instant.parse(closing),
                keepUntil.equals("-") ? null : LocalDate.parse(keepUntil));
        assertThat(clocks.fault(ATHENS).map(Fault::code).orElse("-")).isEqualTo(fault);
    }
}
