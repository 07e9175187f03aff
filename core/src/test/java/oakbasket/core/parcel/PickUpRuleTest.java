package oakbasket.core.parcel;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import oakbasket.core.parcel.PickUpRule.Before;
import oakbasket.core.parcel.PickUpRule.Begins;
import oakbasket.core.parcel.PickUpRule.GoesOn;
import oakbasket.core.parcel.PickUpRule.UsedUp;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PickUpRuleTest {

    private static final Instant NOW = Instant.parse("2026-05-12T09:30:00Z");
    private static final long MIB = 1L << 20;

    /** One pick-up before, of a file of 100 MiB, and one request: whether it goes on with it. */
    @ParameterizedTest(name = "{0} took {1} MiB {2} minutes ago (whole: {3}); {4} asks from {5} MiB: {6}")
    @CsvSource({
        "a, 40, 1, false, a, 40, GOES_ON", // broke off, and goes on where it stopped
        "a, 40, 1, false, a, 0, GOES_ON", // a browser that begins again
        "a, 40, 1, false, a, 10, GOES_ON", // parts beside one another
        "a, 40, 1, false, b, 40, GOES_ON", // another network in the middle of it
        "a, 40, 1, false, b, 30, GOES_ON", // what was on the line was lost
        "a, 40, 1, false, b, 5, BEGINS", // somebody else, who has not had the beginning
        "a, 40, 1, false, b, 60, BEGINS",
        "a, 40, 1, false, b, 0, BEGINS",
        "a, 40, 1441, false, a, 40, BEGINS", // a day later
        "a, 100, 1, true, a, 99, GOES_ON", // the last bytes left here and did not arrive
        "a, 100, 1, true, b, 99, BEGINS",
        "a, 100, 1, true, a, 0, BEGINS",
        "a, 100, 1441, true, a, 99, BEGINS",
    })
    void aRequestGoesOnWithWhatBrokeOff(String who, long mib, long minutes, boolean whole, String asks, long from, String becomes) {
        Instant at = NOW.minus(Duration.ofMinutes(minutes));
        Before before = new Before(7, who, Taken.NOTHING.with(0, mib * MIB), whole ? at : null, at);
        assertThat(PickUpRule.decide(List.of(before), from * MIB, 100 * MIB, asks, null, NOW)).isEqualTo(becomes.equals("BEGINS") ? new Begins() : new GoesOn(7));
    }

    /** Two pick-ups are allowed. */
    @ParameterizedTest(name = "{0} whole, {1} under way, {2} that broke off long ago: {3}")
    @CsvSource({"0, 0, 0, BEGINS", "1, 0, 0, BEGINS", "2, 0, 0, USED_UP", "1, 1, 0, USED_UP", "0, 2, 0, USED_UP", "1, 0, 5, BEGINS", "0, 0, 9, BEGINS", "3, 0, 0, USED_UP"})
    void whatIsUnderWayTakesAPlaceAndWhatWasGivenUpNone(int whole, int underWay, int givenUp, String becomes) {
        List<Before> before = new ArrayList<>();
        for (int n = 0; n < whole + underWay + givenUp; n++) {
            Instant at = n < whole ? NOW.minus(Duration.ofDays(30)) : n < whole + underWay ? NOW.minusSeconds(59 * 60) : NOW.minusSeconds(61 * 60);
            before.add(new Before(n, "somebody " + n, Taken.NOTHING.with(0, 5), n < whole ? at : null, at));
        }
        assertThat(PickUpRule.decide(before, 0, 100, "me", 2, NOW)).isEqualTo(becomes.equals("BEGINS") ? new Begins() : new UsedUp());
    }

    /** A download that dies before nearly all has left, a hundred times, is one pick-up, which is not whole until its last byte left; what dies at the very end goes on at the end and is not begun anew. */
    @Test
    void whatDiesAHundredTimesIsOnePickUp() {
        List<Before> before = new ArrayList<>();
        Taken taken = Taken.NOTHING;
        for (int n = 0; n < 100; n++) {
            Instant at = NOW.plusSeconds(60L * n);
            PickUpRule.Decision decision = PickUpRule.decide(before, n % 2 == 0 ? 0 : 90 * MIB, 100 * MIB, "phone", 1, at);
            assertThat(decision).isEqualTo(n == 0 ? new Begins() : new GoesOn(1));
            taken = taken.with(n % 2 == 0 ? 0 : 90 * MIB, 94 * MIB);
            assertThat(taken.whole(100 * MIB)).isFalse();
            before = List.of(new Before(1, "phone", taken, null, at));
        }
        assertThat(taken.with(94 * MIB, 100 * MIB).whole(100 * MIB)).isTrue();
    }

    @ParameterizedTest(name = "{0} and {1} to {2}: {3}")
    @CsvSource(delimiter = '|', value = {"''|0|10|0-10", "0-10|10|20|0-20", "0-10|5|8|0-10", "0-10|20|30|0-10,20-30", "0-10,20-30|10|20|0-30", "5-10|0|3|0-3,5-10", "5-10|0|5|0-10", "0-10,20-30,40-50|5|45|0-50", "0-10|7|7|0-10",
        "''|4|2|''"})
    void piecesThatTouchAreOne(String before, long from, long to, String after) {
        assertThat(Taken.read(before).with(from, to).written()).isEqualTo(after);
    }

    /** However the pieces come, a file is whole when every byte of it left, and what is noted stays small. */
    @Test
    void piecesInAnyOrderComeToTheWhole() {
        Random random = new Random(5);
        for (int round = 0; round < 200; round++) {
            int size = 1 + random.nextInt(60);
            boolean[] left = new boolean[size];
            Taken taken = Taken.NOTHING;
            for (int n = 0; n < 40; n++) {
                int from = random.nextInt(size);
                int to = from + random.nextInt(size - from + 1);
                taken = taken.with(from, to);
                for (int at = from; at < to; at++) {
                    left[at] = true;
                }
                int missing = 0;
                int bytes = 0;
                for (int at = 0; at < size; at++) {
                    missing += missing == at && left[at] ? 1 : 0;
                    bytes += left[at] ? 1 : 0;
                }
                assertThat(taken.firstMissing()).isEqualTo(missing);
                assertThat(taken.bytes()).isEqualTo(bytes);
                assertThat(taken.whole(size)).isEqualTo(bytes == size);
                assertThat(Taken.read(taken.written())).isEqualTo(taken);
            }
        }
        Taken scattered = Taken.NOTHING;
        for (int n = 0; n < 10_000; n++) {
            scattered = scattered.with(n * 10L, n * 10L + 1);
        }
        assertThat(scattered.pieces()).hasSize(Taken.MOST_PIECES);
        assertThat(scattered.with(0, 200_000).whole(200_000)).isTrue();
    }

    /** A patient stranger takes all but the last bytes, in pieces, from several addresses, again and again, hours apart: as a property over random ways to do so. What they got is never more than what is allowed and one file. */
    @Test
    void whoeverTakesNearlyAllHasTakenItHoweverItIsCutUp() {
        Random random = new Random(27);
        for (int round = 0; round < 400; round++) {
            long bytes = 1 + random.nextInt(1 << 28);
            int most = 1 + random.nextInt(3);
            List<Before> before = new ArrayList<>();
            Instant at = NOW;
            long got = 0;
            for (int n = 0; n < 60; n++) {
                at = at.plus(Duration.ofMinutes(61 + random.nextInt(3_000)));
                String who = "address " + random.nextInt(4);
                long from = random.nextBoolean() ? 0 : (long) (random.nextDouble() * bytes);
                // The last byte never goes.
                long to = Math.min(bytes - 1, from + (long) (random.nextDouble() * bytes));
                PickUpRule.Decision decision = PickUpRule.decide(before, from, bytes, who, most, at);
                if (decision instanceof UsedUp || to <= from) {
                    continue;
                }
                got += to - from;
                if (decision instanceof GoesOn goesOn) {
                    Before old = before.get((int) goesOn.id());
                    before.set((int) goesOn.id(), new Before(old.id(), old.caller(), old.taken().askedFrom(from).with(from, to), null, at));
                } else {
                    before.add(new Before(before.size(), who, Taken.NOTHING.with(from, to), null, at));
                }
            }
            long distinct = before.stream().mapToLong(one -> one.taken().bytes()).sum();
            assertThat(distinct).as("of %d bytes, %d times, %d sent in all", bytes, most, got).isLessThanOrEqualTo((most + 1) * bytes);
        }
    }

    @Test
    void allButTheLastByteIsNotHadTwice() {
        Before nearly = new Before(0, "me", Taken.NOTHING.with(0, 999), null, NOW.minus(Duration.ofHours(2)));
        assertThat(PickUpRule.decide(List.of(nearly), 0, 1_000, "me", 1, NOW)).isEqualTo(new UsedUp());
        assertThat(PickUpRule.decide(List.of(nearly), 500, 1_000, "me", 1, NOW)).isEqualTo(new UsedUp());
        assertThat(PickUpRule.decide(List.of(nearly), 999, 1_000, "me", 1, NOW)).as("the last byte may still be fetched").isEqualTo(new GoesOn(0));
        assertThat(PickUpRule.decide(List.of(nearly), 0, 1_000, "me", 2, NOW)).isEqualTo(new Begins());
    }

    /** What a line held when it broke is not noted here and has arrived there, or the other way round (common practice, no source). */
    @ParameterizedTest(name = "{0} of {1} asked from {2}: {3}")
    @CsvSource({"0-40, 100, 42, 0-42", "0-40, 100, 56, 0-56", "0-40, 100, 57, 0-40", "0-40, 100, 30, 0-40", "'', 100, 10, ''", "0-10;50-60, 100, 62, 0-10;50-62"})
    void whatLiesBetweenTwoEndsOfABrokenLineHasArrived(String pieces, long of, long from, String becomes) {
        Taken taken = Taken.NOTHING;
        for (String piece : pieces.isEmpty() ? new String[0] : pieces.split(";")) {
            taken = taken.with(Long.parseLong(piece.split("-")[0]) * MIB, Long.parseLong(piece.split("-")[1]) * MIB);
        }
        Taken expected = Taken.NOTHING;
        for (String piece : becomes.isEmpty() ? new String[0] : becomes.split(";")) {
            expected = expected.with(Long.parseLong(piece.split("-")[0]) * MIB, Long.parseLong(piece.split("-")[1]) * MIB);
        }
        assertThat(taken.askedFrom(from * MIB)).isEqualTo(expected);
        assertThat(taken.askedFrom(from * MIB).whole(of * MIB)).isFalse();
    }

    @ParameterizedTest(name = "{0} of {1}: {2}")
    @CsvSource({"95, 100, true", "94, 100, false", "99, 100, true", "0, 1, false", "1, 1, true", "18, 19, false", "19, 20, true"})
    void nearlyWholeIsAllButATwentieth(long taken, long bytes, boolean nearly) {
        assertThat(Taken.NOTHING.with(0, taken).nearlyWhole(bytes)).isEqualTo(nearly);
    }
}
