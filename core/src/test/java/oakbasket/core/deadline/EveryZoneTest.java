package oakbasket.core.deadline;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.zone.ZoneOffsetTransition;
import java.util.EnumSet;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Every change of clocks of every zone from 2024 on. Source: IANA tz database, as carried by the JDK. */
class EveryZoneTest {

    private static final Instant FROM = Instant.parse("2024-01-01T00:00:00Z");
    private static final Instant TO = Instant.parse("2029-01-01T00:00:00Z");

    @Test
    void aSkippedTimeMovesForwardByTheGapAndADoubledOneIsTheLater() {
        int gaps = 0;
        int overlaps = 0;
        for (String name : ZoneId.getAvailableZoneIds()) {
            ZoneId zone = ZoneId.of(name);
            for (ZoneOffsetTransition change = zone.getRules().nextTransition(FROM); change != null && change.getInstant().isBefore(TO);
                    change = zone.getRules().nextTransition(change.getInstant())) {
                if (change.isGap()) {
                    gaps++;
                    LocalDateTime skipped = change.getDateTimeBefore().plusSeconds(60);
                    assertThat(at(skipped, zone)).as("%s %s", zone, skipped).isEqualTo(change.getInstant().plusSeconds(60));
                } else {
                    overlaps++;
                    LocalDateTime doubled = change.getDateTimeAfter().plusSeconds(60);
                    assertThat(at(doubled, zone)).as("%s %s", zone, doubled).isEqualTo(change.getInstant().plusSeconds(60));
                }
            }
        }
        assertThat(gaps).isGreaterThan(500);
        assertThat(overlaps).isGreaterThan(500);
    }

    @Test
    void aDateAloneEndsWhereTheNextDayBegins() {
        for (String name : ZoneId.getAvailableZoneIds()) {
            ZoneId zone = ZoneId.of(name);
            for (LocalDate date = LocalDate.of(2026, 1, 1); date.getYear() == 2026; date = date.plusDays(1)) {
                Instant end = new LocalDeadline(date, null, zone).instant();
                assertThat(LocalDate.ofInstant(end, zone)).as("%s %s", zone, date).isEqualTo(date);
                assertThat(LocalDate.ofInstant(end.plusNanos(1), zone)).as("%s %s", zone, date).isEqualTo(date.plusDays(1));
            }
        }
    }

    @Test
    void workingDaysAgreeWithCountingOnFingers() {
        Random random = new Random(7);
        for (int n = 0; n < 2_000; n++) {
            LocalDate from = LocalDate.of(2026, 1, 1).plusDays(random.nextInt(800));
            LocalDate to = from.plusDays(random.nextInt(60) - 10);
            WorkingDays calendar = new WorkingDays(EnumSet.of(DayOfWeek.of(1 + random.nextInt(7)), DayOfWeek.SUNDAY), Set.of(from.plusDays(3), from.plusDays(9)));
            int fingers = 0;
            for (LocalDate day = from.plusDays(1); !day.isAfter(to); day = day.plusDays(1)) {
                fingers += calendar.isWorking(day) ? 1 : 0;
            }
            assertThat(calendar.between(from, to)).as("%s to %s, %s", from, to, calendar).isEqualTo(fingers);
        }
    }

    private static Instant at(LocalDateTime local, ZoneId zone) {
        return new LocalDeadline(local.toLocalDate(), local.toLocalTime(), zone).instant();
    }
}
