package oakbasket.core.standing;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import oakbasket.core.deadline.DeadlineTerms;
import oakbasket.core.deadline.Timeliness;
import org.junit.jupiter.api.Test;

/** The rules once more, written as plainly as the design words them and without care for speed, against the real ones on many random baskets. */
class StandingOracleTest {

    private static final Instant START = Instant.parse("2026-05-01T00:00:00Z");
    private final Random random = new Random(20260501);

    @Test
    void theRulesAgreeWithTheirPlainWordingOnRandomBaskets() {
        for (int n = 0; n < 30_000; n++) {
            List<RandomItem> items = Stream.generate(this::item).limit(1 + random.nextInt(4)).toList();
            List<ItemState> states = items.stream().map(i -> ItemState.of(i.required, i.min, i.waived, i.files)).toList();
            for (int i = 0; i < items.size(); i++) {
                assertThat(states.get(i).standing()).as("%s", items.get(i)).isEqualTo(plainly(items.get(i)));
            }
            Instant asked = maybe();
            Instant opened = maybe();
            DeadlineTerms terms = new DeadlineTerms(at(random.nextInt(60)), maybe(), Duration.ofHours(random.nextInt(20)), Duration.ofHours(random.nextInt(10)));
            Instant now = at(60 + random.nextInt(20));
            BasketStanding standing = BasketStanding.of(new BasketStanding.Story(asked, opened, null), states, terms, now);
            assertThat(standing.progress()).as("%s", items).isEqualTo(progress(items, asked, opened));
            assertThat(standing.timeliness()).as("%s", items).isEqualTo(timeliness(terms, finished(items).orElse(null), now));
        }
    }

    @Test
    void theOrderInWhichFilesAreGivenDoesNotMatter() {
        for (int n = 0; n < 5_000; n++) {
            RandomItem item = item();
            List<FileFact> shuffled = new ArrayList<>(item.files);
            Collections.shuffle(shuffled, random);
            assertThat(ItemState.of(item.required, item.min, item.waived, shuffled)).isEqualTo(ItemState.of(item.required, item.min, item.waived, item.files));
        }
    }

    @Test
    void anotherFileNeverMakesAnItemOwedThatWasSatisfied() {
        for (int n = 0; n < 5_000; n++) {
            RandomItem item = item();
            List<FileFact> more = new ArrayList<>(item.files);
            more.add(new FileFact(at(99), Review.NONE, null));
            boolean before = ItemState.of(item.required, item.min, item.waived, item.files).standing().satisfied();
            assertThat(!before || ItemState.of(item.required, item.min, item.waived, more).standing().satisfied()).isTrue();
        }
    }

    /** Claimed files: the same item without them stands the same, whatever was said of them and whenever they came. */
    @Test
    void whatIsKeptApartChangesNothing() {
        for (int n = 0; n < 5_000; n++) {
            RandomItem item = item();
            List<FileFact> withClaimed = new ArrayList<>(item.files);
            List<FileFact> claimed = item().files.stream().map(file -> new FileFact(file.receivedAt(), file.review(), file.reviewedAt(), true)).toList();
            withClaimed.addAll(claimed);
            Collections.shuffle(withClaimed, random);
            ItemState without = ItemState.of(item.required, item.min, item.waived, item.files);
            ItemState with = ItemState.of(item.required, item.min, item.waived, withClaimed);
            assertThat(with).isEqualTo(new ItemState(without.standing(), without.required(), without.files(), without.toCheck(), claimed.size(), without.satisfiedAt()));
        }
    }

    /** The rule of timeliness in the words of PRODUCT.md, by hours: what is finished is judged by when, what is not by now. */
    private static Timeliness timeliness(DeadlineTerms terms, Instant finished, Instant now) {
        Instant deadline = terms.extension() == null ? terms.roundDeadline() : terms.extension();
        Instant judged = finished == null ? now : finished;
        long past = Duration.between(deadline, judged).toHours();
        Timeliness.State state = past > terms.grace().toHours() ? finished == null ? Timeliness.State.OVERDUE : Timeliness.State.LATE
                : past > 0 ? Timeliness.State.IN_GRACE
                : finished != null ? Timeliness.State.ON_TIME
                : -past > terms.warning().toHours() ? Timeliness.State.AHEAD : Timeliness.State.DUE_SOON;
        boolean counted = state == Timeliness.State.OVERDUE || state == Timeliness.State.LATE;
        return new Timeliness(state, counted ? Duration.ofHours(past) : Duration.ZERO);
    }

    private record RandomItem(boolean required, int min, Instant waived, List<FileFact> files) {
        long accepted() {
            return files.stream().filter(f -> f.review() == Review.ACCEPTED).count();
        }

        List<FileFact> kept() {
            return files.stream().filter(f -> f.review() != Review.RETURNED).sorted(Comparator.comparing(FileFact::receivedAt)).toList();
        }
    }

    private static ItemStanding plainly(RandomItem item) {
        if (item.waived != null) {
            return ItemStanding.WAIVED;
        }
        Optional<Instant> newestReturn = item.files.stream().filter(f -> f.review() == Review.RETURNED).map(FileFact::reviewedAt).max(Comparator.naturalOrder());
        Optional<Instant> newestAcceptance = item.files.stream().filter(f -> f.review() == Review.ACCEPTED).map(FileFact::reviewedAt).max(Comparator.naturalOrder());
        boolean newestReviewReturns = newestReturn.isPresent() && (newestAcceptance.isEmpty() || !newestAcceptance.get().isAfter(newestReturn.get()));
        if (newestReviewReturns && item.files.stream().noneMatch(f -> f.receivedAt().isAfter(newestReturn.get()))) {
            return ItemStanding.RETURNED;
        }
        if (item.accepted() >= item.min) {
            return ItemStanding.ACCEPTED;
        }
        if (item.kept().size() >= item.min) {
            return ItemStanding.ARRIVED;
        }
        return item.kept().isEmpty() ? ItemStanding.WANTED : ItemStanding.PART;
    }

    private static Optional<Instant> finished(List<RandomItem> items) {
        List<RandomItem> required = items.stream().filter(RandomItem::required).toList();
        if (required.isEmpty()) {
            return items.stream().filter(i -> plainly(i).satisfied()).map(StandingOracleTest::since).min(Comparator.naturalOrder());
        }
        return required.stream().allMatch(i -> plainly(i).satisfied()) ? required.stream().map(StandingOracleTest::since).max(Comparator.naturalOrder()) : Optional.empty();
    }

    private static Instant since(RandomItem item) {
        return item.waived != null ? item.waived : item.kept().get(item.min - 1).receivedAt();
    }

    private static Progress progress(List<RandomItem> items, Instant asked, Instant opened) {
        if (finished(items).isPresent()) {
            boolean anyRequired = items.stream().anyMatch(RandomItem::required);
            boolean settled = items.stream().filter(i -> anyRequired ? i.required : plainly(i).satisfied()).allMatch(i -> plainly(i).settled());
            return settled ? Progress.CHECKED : Progress.COMPLETE;
        }
        boolean anything = items.stream().anyMatch(i -> !i.kept().isEmpty() || plainly(i) == ItemStanding.RETURNED);
        return anything ? Progress.PART : opened != null ? Progress.OPENED : asked != null ? Progress.ASKED : Progress.NOT_ASKED;
    }

    private RandomItem item() {
        List<FileFact> files = new ArrayList<>();
        for (int n = random.nextInt(5); n > 0; n--) {
            int arrived = random.nextInt(30);
            Review review = Review.values()[random.nextInt(3)];
            files.add(new FileFact(at(arrived), review, review == Review.NONE ? null : at(arrived + random.nextInt(30))));
        }
        return new RandomItem(random.nextInt(4) > 0, 1 + random.nextInt(3), random.nextInt(8) == 0 ? at(random.nextInt(50)) : null, files);
    }

    private Instant maybe() {
        return random.nextBoolean() ? at(random.nextInt(60)) : null;
    }

    private static Instant at(int hours) {
        return START.plus(Duration.ofHours(hours));
    }
}
