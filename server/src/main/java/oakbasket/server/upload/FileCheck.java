package oakbasket.server.upload;

import java.util.Locale;
import oakbasket.core.filekind.KindCheck;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;

/** What can be said of a file by its name and length alone, before any byte of it is taken. */
final class FileCheck {

    private static final int LONGEST_NAME = 1_000;

    private FileCheck() {
    }

    /**
     * What can be said of a file by its name and length. An archive that will be opened may be as large as what it stands for, and is of no kind that was asked for.
     *
     * @throws Problem when it cannot be accepted
     */
    static void check(Round round, Item item, String fileName, long length) {
        if (!item.spec().opens(fileName)) {
            checkFile(round, item, fileName, length);
            return;
        }
        plausible(fileName, length);
        if (length > item.spec().mostArchiveBytes()) {
            throw Problem.of(Problem.Kind.TOO_LARGE, "upload-too-large", fileName, mebibytes(length), mebibytes(item.spec().mostArchiveBytes()));
        }
    }

    private static void plausible(String fileName, long length) {
        if (fileName.isBlank() || fileName.length() > LONGEST_NAME) {
            throw Problem.refused("file-name", LONGEST_NAME);
        }
        if (length == 0) {
            throw Problem.refused("file-empty", fileName);
        }
    }

    /**
     * The same for a file that stays what it is.
     *
     * @throws Problem when it cannot be accepted
     */
    static void checkFile(Round round, Item item, String fileName, long length) {
        plausible(fileName, length);
        if (length > item.spec().maxBytes()) {
            throw Problem.of(Problem.Kind.TOO_LARGE, "upload-too-large", fileName, mebibytes(length), mebibytes(item.spec().maxBytes()));
        }
        KindCheck.Verdict verdict = KindCheck.byName(item.spec().kinds(), fileName, round.takesActive());
        if (verdict != KindCheck.Verdict.ACCEPTED) {
            throw KindRefusal.of(verdict, fileName, item, "");
        }
    }

    /** A size for a refusal. */
    static String mebibytes(long bytes) {
        return String.format(Locale.ROOT, "%.1f MiB", bytes / 1048576.0);
    }
}
