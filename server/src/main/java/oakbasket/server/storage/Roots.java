package oakbasket.server.storage;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import oakbasket.core.filing.Place;
import org.springframework.stereotype.Component;

/**
 * The folder roots on this machine. Each but the first holds a mark of this office: a share that is not mounted leaves an empty folder behind, into which nothing
 * must be written.
 */
@Component
public class Roots {

    /**
     * A root.
     *
     * @param name what people call it; empty for the first one
     * @param path absolute; empty for the first one, which lies in the data folder
     */
    public record Root(long id, String name, String path) {
    }

    private static final String MARK = ".oak-basket-root";

    private final RootTable table;
    private final DataFolder folder;
    private final Clock clock;
    private final Map<Long, Path> paths = new ConcurrentHashMap<>();

    Roots(RootTable table, DataFolder folder, Clock clock) {
        this.table = table;
        this.folder = folder;
        this.clock = clock;
    }

    /** All roots in use, the first one first. */
    public List<Root> all() {
        return table.all();
    }

    /** Whether there is such a root in use. */
    public boolean has(long id) {
        return table.all().stream().anyMatch(root -> root.id() == id);
    }

    /**
     * Where a root lies.
     *
     * @throws IllegalArgumentException when there never was such a root
     */
    public Path path(long id) {
        return id == Place.FIRST_ROOT ? folder.files() : paths.computeIfAbsent(id, one -> Path.of(table.path(one).orElseThrow(() -> new IllegalArgumentException("No root " + one))));
    }

    /** Whether a root can be reached now. */
    public boolean isThere(long id) {
        return id == Place.FIRST_ROOT || Files.isRegularFile(path(id).resolve(MARK));
    }

    /** What people call a root. */
    public String name(long id) {
        return table.all().stream().filter(root -> root.id() == id).map(Root::name).findFirst().orElse("");
    }

    /** A place as people read it: with the name of its root before it, where that is not the first. */
    public String words(String place) {
        long root = Place.root(place);
        return root == Place.FIRST_ROOT ? place : name(root) + "/" + Place.path(place);
    }

    /** Takes a folder into use and leaves a mark in it. */
    public Root add(String name, Path path) {
        try {
            Files.writeString(path.resolve(MARK), name + "\n", StandardCharsets.UTF_8);
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        return table.add(name, path.toString(), clock.instant());
    }

    /** Whether files or copies lie in a root. */
    public boolean used(long id) {
        return table.used(Place.of(id, ""));
    }

    /** Takes a root out of use; what lies in it stays. */
    public void remove(long id) {
        table.remove(id, clock.instant());
    }

    /** Whether a name below a root is one that this program put there for itself. */
    public static boolean isOwn(String name) {
        return name.equals(MARK) || isUnfinished(name);
    }

    /** Whether a file of this name is a copy that was not whole yet. */
    public static boolean isUnfinished(String name) {
        return name.startsWith(FileStore.COPY_MARK);
    }
}
