package oakbasket.server.storage;

import java.nio.file.Path;
import java.util.List;
import oakbasket.core.archive.ZipLayout;
import org.jspecify.annotations.Nullable;

/** An archive that can be sent; {@code seal} differs whenever a byte of it would. */
public record Archive(String name, ZipLayout layout, List<Part> parts, String seal) {

    /** A part of an archive: a file on the disk, or bytes of the archive's own. */
    public record Part(@Nullable Path file, byte[] own) {
    }
}
