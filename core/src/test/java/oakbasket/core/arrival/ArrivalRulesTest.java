package oakbasket.core.arrival;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What becomes of a file on arrival. */
class ArrivalRulesTest {

    @ParameterizedTest(name = "{0} where files {1}")
    @CsvSource({"CLEAN, WAIT, FILED", "CLEAN, PASS, FILED", "FOUND, WAIT, QUARANTINED", "FOUND, PASS, QUARANTINED", "UNCHECKED, WAIT, WAITS", "UNCHECKED, PASS, FILED_WITH_MARK"})
    void whatIsFoundIsNeverFiledAndWhatNobodyCheckedAsTheItemSays(ScanVerdict said, Unchecked policy, ScanVerdict.Next next) {
        assertThat(said.next(policy)).isEqualTo(next);
    }

    @ParameterizedTest(name = "{1} for an item that takes them {0}: {2}")
    @CsvSource({"AS_SENT, a.zip, false", "OPENED, a.zip, true", "OPENED, A.ZIP, true", "OPENED, a.zip., true", "OPENED_AND_KEPT, photos of May.zip, true", "OPENED, a.docx, false",
        "OPENED, zip, false", "OPENED, a.zip.pdf, false"})
    void anArchiveIsKnownByTheNameItWouldHaveOnDisk(Archives archives, String name, boolean opened) {
        assertThat(archives.open(name)).isEqualTo(opened);
    }

    /** The hostile forms are those of OWASP ("Zip Slip") and of Microsoft's naming rules (drive letters, backslashes). */
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({"sheet.pdf, FILE", "site 1/photo.jpg, FILE", "site 1\\photo.jpg, FILE", "a/b/..hidden, FILE", "a/b/c..d, FILE", "..., POINTS_OUTSIDE", "../x, POINTS_OUTSIDE",
        "a/../x, POINTS_OUTSIDE", "a/.. /x, POINTS_OUTSIDE", "a\\..\\x, POINTS_OUTSIDE", "/etc/passwd, POINTS_OUTSIDE", "\\\\server\\share\\x, POINTS_OUTSIDE", "C:x, POINTS_OUTSIDE",
        "c:\\x, POINTS_OUTSIDE", "a/.., POINTS_OUTSIDE", "folder/, NOTHING_SENT", "'', NOTHING_SENT", "__MACOSX/._a.jpg, NOTHING_SENT", "a/.DS_Store, NOTHING_SENT",
        "a/Thumbs.db, NOTHING_SENT", "a/b/c/d/e/f/g/h/i/j/k/l/m/n/o/p/x, FILE", "a/b/c/d/e/f/g/h/i/j/k/l/m/n/o/p/q/x, TOO_DEEP"})
    void anEntryLiesInItsArchiveOrIsRefused(String name, EntryName.Verdict verdict) {
        assertThat(EntryName.judge(name)).isEqualTo(verdict);
    }

    @Test
    void aNulInANamePointsOutside() {
        assertThat(EntryName.judge("a.pdf\0.exe")).isEqualTo(EntryName.Verdict.POINTS_OUTSIDE);
    }

    @ParameterizedTest(name = "{2} bytes out of {0} where {1} are the most: {3}")
    @CsvSource({"100, 9000000000, 1048576, true", "100, 9000000000, 1048577, false", "1000000, 9000000000, 200000000, true", "1000000, 9000000000, 200000001, false",
        "1000000, 5000, 5000, true", "1000000, 5000, 5001, false"})
    void whatComesOutIsBoundedByTheArchiveAndByTheItem(long archive, long most, long out, boolean fits) {
        ArchiveBudget budget = new ArchiveBudget(archive, most);
        assertThat(budget.take(out / 2)).isTrue();
        assertThat(budget.take(out - out / 2)).isEqualTo(fits);
        assertThat(budget.left()).isEqualTo(fits ? Math.min(most, Math.max(1 << 20, archive * 200)) - out : 0);
    }
}
