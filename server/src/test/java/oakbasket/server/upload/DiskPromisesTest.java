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
        promises.promise("one", 1, 60 * GIBIBYTE);
        refused("two", 2, 60 * GIBIBYTE);
        promises.promise("two", 2, 40 * GIBIBYTE);
        refused("three", 3, 1);
    }

    @Test
    void oneLinkTakesNoMoreThanHalfWithSeveralFiles() {
        promises.promise("one", 1, 30 * GIBIBYTE);
        refused("two", 1, 30 * GIBIBYTE);
        promises.promise("two", 1, 20 * GIBIBYTE);
        promises.promise("three", 2, 30 * GIBIBYTE);
    }

    @Test
    void aPromiseOfWhichNothingComesLapsesAndOneUnderWayDoesNot() {
        promises.promise("resting", 1, 50 * GIBIBYTE);
        promises.rest("resting", 50 * GIBIBYTE);
        promises.promise("running", 2, 50 * GIBIBYTE);
        refused("late", 3, 10 * GIBIBYTE);
        when(clock.instant()).thenReturn(NOW.plus(DiskPromises.LIFE).plusSeconds(1));
        promises.promise("late", 3, 50 * GIBIBYTE);
        refused("resting", 1, 50 * GIBIBYTE);
    }

    @Test
    void whatHasArrivedNeedsNoPromiseAndTheSameUploadIsPromisedOnce() {
        promises.promise("one", 1, 90 * GIBIBYTE);
        assertThatCode(() -> promises.promise("one", 1, 80 * GIBIBYTE)).doesNotThrowAnyException();
        promises.rest("one", 0);
        promises.promise("two", 2, 100 * GIBIBYTE);
    }

    private void refused(String upload, long link, long bytes) {
        assertThatThrownBy(() -> promises.promise(upload, link, bytes)).hasMessage("disk-full");
    }
}
