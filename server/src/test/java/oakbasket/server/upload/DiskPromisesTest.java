package oakbasket.server.upload;

import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Instant;
import oakbasket.server.storage.DataFolder;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.mockito.Mock;
import org.mockito.junit.jupiter.MockitoExtension;

@ExtendWith(MockitoExtension.class)
class DiskPromisesTest {

    private static final long GIBIBYTE = 1L << 30;
    private static final Instant NOW = Instant.parse("2026-06-01T09:00:00Z");

    @Mock
    private DataFolder folder;
    @Mock
    private Clock clock;
    private DiskPromises promises;

    /** Room for a hundred GiB beside what is spared. */
    @BeforeEach
    void aDisk() {
        when(folder.free()).thenReturn(100 * GIBIBYTE + DiskPromises.SPARE_BYTES);
        when(clock.instant()).thenReturn(NOW);
        promises = new DiskPromises(folder, clock);
    }

    @Test
    void whatIsPromisedToOneIsNotPromisedToAnother() {
        promises.promise("one", 1, "a", 60 * GIBIBYTE);
        refused("two", 2, 60 * GIBIBYTE);
        promises.promise("two", 2, "a", 40 * GIBIBYTE);
        refused("three", 3, 1);
    }

    @Test
    void oneLinkTakesNoMoreThanHalfWithSeveralFiles() {
        promises.promise("one", 1, "a", 30 * GIBIBYTE);
        assertThatThrownBy(() -> promises.promise("two", 1, "b", 30 * GIBIBYTE)).hasMessage("disk-full");
        promises.promise("two", 1, "b", 20 * GIBIBYTE);
        promises.promise("three", 2, "a", 30 * GIBIBYTE);
    }

    @Test
    void oneCallerLeavesRoomForOthersWithTheSameLink() {
        promises.promise("one", 1, "a", 20 * GIBIBYTE);
        refused("two", 1, 6 * GIBIBYTE);
        promises.promise("two", 1, "a", 5 * GIBIBYTE);
        refused("three", 1, 1);
        promises.promise("of somebody else", 1, "b", 20 * GIBIBYTE);
    }

    @Test
    void aPromiseOfWhichNothingComesLapsesAndOneUnderWayDoesNot() {
        promises.promise("resting", 1, "a", 50 * GIBIBYTE);
        promises.rest("resting", 50 * GIBIBYTE);
        promises.promise("running", 2, "a", 50 * GIBIBYTE);
        refused("late", 3, 10 * GIBIBYTE);
        when(clock.instant()).thenReturn(NOW.plus(DiskPromises.LIFE).plusSeconds(1));
        promises.promise("late", 3, "a", 50 * GIBIBYTE);
        refused("resting", 1, 50 * GIBIBYTE);
    }

    @Test
    void whatHasArrivedNeedsNoPromiseAndTheSameUploadIsPromisedOnce() {
        promises.promise("one", 1, "a", 90 * GIBIBYTE);
        assertThatCode(() -> promises.promise("one", 1, "a", 80 * GIBIBYTE)).doesNotThrowAnyException();
        promises.rest("one", 0);
        promises.promise("two", 2, "a", 100 * GIBIBYTE);
    }

    private void refused(String upload, long link, long bytes) {
        assertThatThrownBy(() -> promises.promise(upload, link, "a", bytes)).hasMessage("disk-full");
    }
}
