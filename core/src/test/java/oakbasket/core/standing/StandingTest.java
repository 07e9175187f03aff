package oakbasket.core.standing;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import oakbasket.core.deadline.DeadlineTerms;
import oakbasket.core.deadline.Timeliness;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Files are written as {@code arrival[+|-review]} in hours from the start: {@code 1+3} came at 1 and was accepted at 3, {@code 2-4} was returned. */
class StandingTest {

    private static final Instant START = Instant.parse("2026-05-01T00:00:00Z");

    @ParameterizedTest(name = "min {0}, waived {1}, files [{2}]: {3}, {4} count, {5} to check, since {6}")
    @CsvSource({
        "1, -, '',               WANTED,   0, 0, -",
        "3, -, '1 2',            PART,     2, 2, -",
        "3, -, '1 2 5 9',        ARRIVED,  4, 4, 5",
        "3, -, '9 5 2 1',        ARRIVED,  4, 4, 5",
        "1, -, '1+3',            ACCEPTED, 1, 0, 1",
        "2, -, '1+3 2',          ARRIVED,  2, 1, 2",
        "2, -, '1+3 2+4 5',      ACCEPTED, 3, 1, 2",
        "1, -, '1-3',            RETURNED, 0, 0, -",
        "1, -, '1-3 4',          ARRIVED,  1, 1, 4",
        "1, -, '1-3 3',          RETURNED, 1, 1, -",
        "1, -, '1-3 4+5',        ACCEPTED, 1, 0, 4",
        "1, -, '1+5 2-3',        ACCEPTED, 1, 0, 1",
        "2, -, '1-5 2+3 4+3',    RETURNED, 2, 0, -",
        "2, -, '1+5 2-5',        RETURNED, 1, 0, -",
        "1, 7, '1-3',            WAIVED,   0, 0, 7",
        "1, 7, '1',              WAIVED,   1, 1, 7"})
    void itemStandingIsTheFirstThatApplies(int min, String waived, String files, ItemStanding standing, int counting, int toCheck, String since) {
        ItemState state = ItemState.of(true, min, at(waived), files(files));
        assertThat(state).isEqualTo(new ItemState(standing, true, counting, toCheck, 0, at(since)));
    }

    /** Items are written {@code min:files} with ! for required, w for waived and n for not owed; the deadline is at hour 10, no grace. */
    @ParameterizedTest(name = "asked {0}, opened {1}, waived {2}, items [{3}]: {4} {5} since {6}")
    @CsvSource({
        "-, -, -, '1!:|1!:',        NOT_ASKED, OVERDUE, -",
        "0, -, -, '1!:|1!:',        ASKED,     OVERDUE, -",
        "0, 1, -, '1!:|1!:',        OPENED,    OVERDUE, -",
        "0, 1, -, '1!:2|1!:',       PART,      OVERDUE, -",
        "0, 1, -, '1!:2-3|1!:',     PART,      OVERDUE, -",
        "-, -, -, '1!:2|1!:9',      COMPLETE,  ON_TIME, 9",
        "0, 1, -, '1!:2|1!:11',     COMPLETE,  LATE,    11",
        "0, 1, -, '1!:2+3|1!:9',    COMPLETE,  ON_TIME, 9",
        "0, 1, -, '1!:2+3|1!:9+20', CHECKED,   ON_TIME, 9",
        "0, 1, -, '1!:2+3|1!w4:',   CHECKED,   ON_TIME, 4",
        "0, 1, -, '1!:2-3 12|1!:4', COMPLETE,  LATE,    12",
        "0, 1, -, '1!:2|1:',        COMPLETE,  ON_TIME, 2",
        "0, 1, -, '1!:2|1:3',       COMPLETE,  ON_TIME, 2",
        "0, 1, -, '1!:|1:3',        PART,      OVERDUE, -",
        "0, 1, -, '1:|1:',          OPENED,    OVERDUE, -",
        "0, 1, -, '1:|1:3',         COMPLETE,  ON_TIME, 3",
        "0, 1, 5, '1!:|1!:',        CHECKED,   ON_TIME, 5",
        "0, 1, -, '1!n:|1!:',       OPENED,    OVERDUE, -",
        "0, 1, -, '1!n:|1!:9',      COMPLETE,  ON_TIME, 9",
        "0, 1, -, '1!n:3|1!:',      PART,      OVERDUE, -",
        "0, 1, -, '1!n:|1:',        OPENED,    OVERDUE, -",
        "3, 4, -, '1!n:|1n:',       CHECKED,   ON_TIME, 3",
        "-, -, -, '1!n:',           CHECKED,   LATE,    50"})
    void basketStandingFollowsItsItems(String asked, String opened, String waived, String items, Progress progress, Timeliness.State timeliness, String since) {
        BasketStanding standing = basket(asked, opened, waived, items, 50);
        assertThat(standing.progress()).isEqualTo(progress);
        assertThat(standing.timeliness().state()).isEqualTo(timeliness);
        assertThat(standing.finishedAt()).isEqualTo(at(since));
    }

    @ParameterizedTest(name = "{0} of {1} is {2} %")
    @CsvSource({"2,2,100", "0,0,0", "199,200,99", "1,3,33", "2,3,66", "0,5,0", "49999,50000,99"})
    void percentIsFlooredSoThatOneHundredMeansAll(int part, int of, int percent) {
        assertThat(RoundCounts.percent(part, of)).isEqualTo(percent);
    }

    /** Facts of the trade (common practice, no source): 3 files and 4 files are 7 files from 2 senders; two asked, two in is 100 %. */
    @Test
    void countsFilesAndSenders() {
        RoundCounts counts = RoundCounts.of(List.of(entry("0", "1!:1 2 3", false), entry("0", "1!:1 2 3 4", false)));
        assertThat(counts.files()).isEqualTo(7);
        assertThat(counts.senders()).isEqualTo(2);
        assertThat(counts.percent()).isEqualTo(100);
        assertThat(RoundCounts.of(List.of(entry("0", "4!:1 2 11 12", false))).senders()).isEqualTo(1);
    }

    @Test
    void waivedBasketsAndWalkInsStandOutsideTheDenominator() {
        BasketView waived = view(basket("0", "-", "3", "1!:", 50), "1!:", "");
        RoundCounts counts = RoundCounts.of(List.of(entry("0", "1!:1", false), entry("0", "1!:", false), waived, entry("-", "1!:1-2", true)));
        assertThat(List.of(counts.asked(), counts.complete(), counts.percent(), counts.waived(), counts.walkIns(), counts.files(), counts.toCheck()))
                .containsExactly(2, 1, 50, 1, 1, 1, 1);
        assertThat(counts.byProgress()).containsEntry(Progress.COMPLETE, 1).containsEntry(Progress.ASKED, 1).containsEntry(Progress.PART, 0);
        assertThat(counts.byTimeliness()).containsEntry(Timeliness.State.OVERDUE, 1).containsEntry(Timeliness.State.ON_TIME, 1);
    }

    @Test
    void whoIsPausedStaysInTheDenominatorAndIsCountedWhileOwing() {
        BasketView owing = view(basket("0", "-", "-", "1!:", 50), "1!:", "paused");
        BasketView done = view(basket("0", "-", "-", "1!:1", 50), "1!:1", "paused");
        RoundCounts counts = RoundCounts.of(List.of(owing, done));
        assertThat(List.of(counts.asked(), counts.complete(), counts.paused())).containsExactly(2, 1, 1);
        assertThat(counts.byTimeliness()).as("who is paused and owes is neither in time nor late").containsEntry(Timeliness.State.OVERDUE, 0).containsEntry(Timeliness.State.ON_TIME, 1);
    }

    @Test
    void claimedFilesAreAddedUpAndWhatWasRemovedIsNot() {
        BasketView claimed = view(basket("0", "1", "-", "1!:2?", 50), "1!:2?", "");
        BasketView removed = view(basket("0", "1", "-", "1!:2?", 50), "1!:2?", "removed");
        assertThat(RoundCounts.of(List.of(claimed, claimed, removed)).claimed()).isEqualTo(2);
    }

    /** The deadline is at hour 10; items as above, before and after a change of the round. */
    @ParameterizedTest(name = "{0} becomes {1} with the deadline at {2}: {3}")
    @CsvSource({
        "'1!:1',     '1!:1',     10, ''",
        "'1!:1',     '2!:1',     10, 'BECOMES_INCOMPLETE BECOMES_OVERDUE'",
        "'2!:1',     '1!:1',     10, 'BECOMES_COMPLETE NO_LONGER_OVERDUE'",
        "'1!:1',     '1!:1|1!:', 60, 'BECOMES_INCOMPLETE DEADLINE_LATER'",
        "'1!:',      '1!:',      60, 'DEADLINE_LATER NO_LONGER_OVERDUE'",
        "'1!:8',     '1!:8',     5,  'DEADLINE_EARLIER BECOMES_LATE'",
        "'1!:12',    '1!:12',    20, 'DEADLINE_LATER NO_LONGER_LATE'",
        "'1!:1|1!:', '1!:1|1:',  10, 'BECOMES_COMPLETE NO_LONGER_OVERDUE'"})
    void aChangeOfARoundSaysWhomItAffects(String before, String after, String deadline, String kinds) {
        List<RoundEffect> effects = RoundEffect.of(List.of(side(before, "10")), List.of(side(after, deadline)));
        assertThat(effects.stream().flatMap(effect -> effect.kinds().stream()).map(Enum::name)).containsExactlyElementsOf(kinds.isEmpty() ? List.of() : List.of(kinds.split(" ")));
    }

    private static RoundEffect.Side side(String items, String deadline) {
        DeadlineTerms terms = new DeadlineTerms(at(deadline), null, Duration.ofHours(2), Duration.ZERO);
        BasketStanding.Story story = new BasketStanding.Story(at("0"), null, null);
        return new RoundEffect.Side(7, BasketStanding.of(story, items(items), terms, at("50")), terms.effective());
    }

    /**
     * The deadline is at hour 10 without grace, it is hour 50 or the hour given; ? after an item stands for one file that is claimed.
     *
     * @param marks what else holds of the basket
     */
    @ParameterizedTest(name = "asked {0}, opened {1}, waived {2}, items [{3}], {4}, at {5}: {6}; owed {7}")
    @CsvSource({
        "-, -, -, '1!:',        '',             5,  EVERYBODY ASKED OWES NEVER_OPENED HAND_OVER,         0",
        "0, -, -, '1!:',        '',             5,  EVERYBODY ASKED OWES NEVER_OPENED,                   0",
        "0, 1, -, '1!:',        '',             5,  EVERYBODY ASKED OWES,                                0",
        "0, 1, -, '1!:',        '',             50, EVERYBODY ASKED OWES OVERDUE,                        0",
        "0, 1, -, '1!:',        paused,         50, EVERYBODY ASKED OWES PAUSED,                         0",
        "0, 1, 3, '1!:',        '',             50, EVERYBODY WAIVED,                                    ''",
        "0, 1, -, '1!:2',       '',             50, EVERYBODY ASKED TO_CHECK COMPLETE SENT,              ''",
        "0, 1, -, '1!:2',       paused,         50, EVERYBODY ASKED TO_CHECK COMPLETE SENT,              ''",
        "0, 1, -, '1!:2+3|1:',  '',             50, EVERYBODY ASKED COMPLETE SENT,                       ''",
        "0, 1, -, '1!:2-3|1!:', '',             5,  EVERYBODY ASKED OWES,                                0 1",
        "0, 1, -, '1!:2|1:2-3', '',             5,  EVERYBODY ASKED TO_CHECK COMPLETE SENT,              1",
        "0, 1, -, '1!:2?',      '',             50, EVERYBODY ASKED OWES OVERDUE CLAIMED,                0",
        "-, -, -, '1!:2|1!:',   'walk-in',      50, EVERYBODY TO_CHECK SENT WALK_INS,                    1",
        "-, -, -, '1!:',        'walk-in',      50, EVERYBODY WALK_INS,                                  0",
        "0, 1, -, '1!:2',       removed,        50, REMOVED,                                             ''",
        "-, -, 3, '1!:',        'walk-in',      50, EVERYBODY WALK_INS,                                  ''",
        "0, -, -, 'n:',         '',             50, EVERYBODY ASKED COMPLETE,                            ''"})
    void aBasketBelongsToItsLists(String asked, String opened, String waived, String items, String marks, int now, String lists, String owed) {
        BasketView view = view(basket(asked, opened, waived, items, now), items, marks);
        assertThat(view.lists()).extracting(Enum::name).containsExactlyInAnyOrder(lists.strip().split(" "));
        List<Tile> tiles = view.tiles(at("10"), at(Integer.toString(now)));
        assertThat(IntStream.range(0, tiles.size()).filter(i -> tiles.get(i).owed()).mapToObj(Integer::toString)).containsExactly(owed.isEmpty() ? new String[0] : owed.split(" "));
    }

    /** The order in which standings are declared means nothing to anybody. */
    @ParameterizedTest(name = "[{0}] {1}: {2}, late {3}, overdue {4}")
    @CsvSource({
        "'1!:2',   '',     ARRIVED,  false, false", "'1!:12',  '',      ARRIVED,  true,  false", "'1!:',    '',      WANTED,   false, true",
        "'1!:',    paused, WANTED,   false, false", "'1:',     '',      WANTED,   false, false", "'2!:2',   '',      PART,     false, true",
        "'1!w30:', '',     WAIVED,   false, false", "'1!:2-3', '',      RETURNED, false, true",  "'1!:12+13', '',    ACCEPTED, true,  false"})
    void aTileShowsTheItemAndItsTime(String items, String marks, ItemStanding standing, boolean late, boolean overdue) {
        Tile tile = view(basket("0", "1", "-", items, 50), items, marks).tiles(at("10"), at("50")).get(0);
        assertThat(tile.standing()).isEqualTo(standing);
        assertThat(tile.late()).isEqualTo(late);
        assertThat(tile.overdue()).isEqualTo(overdue);
    }

    private static BasketView entry(String asked, String items, boolean walkIn) {
        return view(basket(asked, "-", "-", items, 50), items, walkIn ? "walk-in" : "");
    }

    private static BasketView view(BasketStanding standing, String items, String marks) {
        return new BasketView(standing, items(items), marks.contains("walk-in"), marks.contains("paused"), marks.contains("removed"));
    }

    private static BasketStanding basket(String asked, String opened, String waived, String items, int now) {
        DeadlineTerms terms = new DeadlineTerms(at("10"), null, Duration.ofHours(2), Duration.ZERO);
        return BasketStanding.of(new BasketStanding.Story(at(asked), at(opened), at(waived)), items(items), terms, at(Integer.toString(now)));
    }

    private static List<ItemState> items(String written) {
        return Arrays.stream(written.split("\\|")).map(item -> {
            String[] parts = item.split(":", -1);
            String head = parts[0];
            String waived = head.contains("w") ? head.substring(head.indexOf('w') + 1) : "-";
            if (head.contains("n")) {
                return ItemState.notOwed(files(parts[1]));
            }
            return ItemState.of(head.contains("!"), Character.digit(head.charAt(0), 10), at(waived), files(parts[1]));
        }).toList();
    }

    private static List<FileFact> files(String written) {
        List<FileFact> files = new ArrayList<>();
        for (String file : written.isEmpty() ? new String[0] : written.split(" ")) {
            String[] times = file.split("[+-]");
            Review review = file.contains("+") ? Review.ACCEPTED : file.contains("-") ? Review.RETURNED : Review.NONE;
            files.add(new FileFact(at(times[0].replace("?", "")), review, review == Review.NONE ? null : at(times[1]), file.endsWith("?")));
        }
        return files;
    }

    private static Instant at(String hours) {
        return hours.equals("-") ? null : START.plus(Duration.ofHours(Long.parseLong(hours)));
    }
}
