package oakbasket.bench;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import oakbasket.core.deadline.DeadlineTerms;
import oakbasket.core.standing.BasketStanding;
import oakbasket.core.standing.FileFact;
import oakbasket.core.standing.ItemState;
import oakbasket.core.standing.Review;
import oakbasket.core.standing.BasketView;
import oakbasket.core.standing.RoundCounts;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** The standing of a million items in 83,334 baskets of twelve, and the totals made of them: what a coordinator waits for at the very most. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 4, time = 2)
@Measurement(iterations = 6, time = 2)
public class MillionItems {

    private static final int ITEMS = 12;
    private static final int BASKETS = 1_000_000 / ITEMS + 1;
    private static final Instant NOW = Instant.parse("2026-06-30T12:00:00Z");
    private static final DeadlineTerms TERMS = new DeadlineTerms(NOW.minus(Duration.ofDays(1)), null, Duration.ofDays(3), Duration.ofHours(6));

    private final List<List<List<FileFact>>> baskets = new ArrayList<>();

    @Setup
    public void files() {
        Random random = new Random(1);
        for (int b = 0; b < BASKETS; b++) {
            List<List<FileFact>> items = new ArrayList<>();
            for (int i = 0; i < ITEMS; i++) {
                List<FileFact> files = new ArrayList<>();
                for (int n = random.nextInt(10) < 7 ? 1 + random.nextInt(2) : 0; n > 0; n--) {
                    Instant received = NOW.minusSeconds(random.nextInt(2_000_000));
                    Review review = Review.values()[random.nextInt(3)];
                    files.add(new FileFact(received, review, review == Review.NONE ? null : received.plusSeconds(3_600)));
                }
                items.add(files);
            }
            baskets.add(items);
        }
    }

    @Benchmark
    public RoundCounts standingOfAMillionItems() {
        List<BasketView> entries = new ArrayList<>(BASKETS);
        BasketStanding.Story story = new BasketStanding.Story(NOW.minus(Duration.ofDays(20)), null, null);
        for (List<List<FileFact>> basket : baskets) {
            List<ItemState> states = new ArrayList<>(ITEMS);
            for (int i = 0; i < ITEMS; i++) {
                states.add(ItemState.of(i % 4 != 0, 1, null, basket.get(i)));
            }
            entries.add(new BasketView(BasketStanding.of(story, states, TERMS, NOW), states, false, false, false));
        }
        return RoundCounts.of(entries);
    }
}
