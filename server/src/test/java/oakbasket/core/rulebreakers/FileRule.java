package oakbasket.core.rulebreakers;

import java.nio.file.Files;
import java.nio.file.Path;

/** A rule that looks at the disk. */
final class FileRule {

    boolean holds(Path path) {
        return Files.exists(path);
    }
}
