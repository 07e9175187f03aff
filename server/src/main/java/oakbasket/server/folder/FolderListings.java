package oakbasket.server.folder;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import oakbasket.core.naming.Folded;
import oakbasket.server.clock.MachineTime;
import oakbasket.server.storage.Roots;
import org.springframework.stereotype.Component;

/** What lies in folders. A large one is read once and remembered while its names do not change; sizes of what is shown are looked at anew. */
@Component
class FolderListings {

    private static final int MOST_FOLDERS = 20;
    private static final Duration LONGEST = Duration.ofMinutes(1);

    /** How a listing is sorted. */
    enum By {
        NAME,
        BYTES,
        CHANGED
    }

    /**
     * Something in a folder; links are neither followed nor shown.
     *
     * @param folded its name as it is sorted and found
     */
    record Entry(String name, String folded, boolean folder, long bytes, Instant changedAt) {
    }

    private record Listing(FileTime changed, Instant readAt, List<Entry> entries, Map<By, List<Entry>> sorted) {
    }

    private final MachineTime machine;
    private final Map<Path, Listing> remembered = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Path, Listing> eldest) {
            return size() > MOST_FOLDERS;
        }
    };

    FolderListings(MachineTime machine) {
        this.machine = machine;
    }

    /** Everything in a folder, folders first. */
    List<Entry> of(Path folder, By by) {
        Listing listing = listing(folder);
        return listing.sorted().computeIfAbsent(by, how -> listing.entries().stream().sorted(Comparator.comparing((Entry entry) -> !entry.folder()).thenComparing(comparing(how)).thenComparing(Entry::name)).toList());
    }

    private static Comparator<Entry> comparing(By by) {
        return switch (by) {
            case NAME -> Comparator.comparing(Entry::folded);
            case BYTES -> Comparator.comparingLong(Entry::bytes);
            case CHANGED -> Comparator.comparing(Entry::changedAt);
        };
    }

    /** The same entry as it is now. */
    static Entry now(Path folder, Entry entry) {
        try {
            BasicFileAttributes found = Files.readAttributes(folder.resolve(entry.name()), BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
            return new Entry(entry.name(), entry.folded(), entry.folder(), found.size(), found.lastModifiedTime().toInstant());
        } catch (IOException gone) {
            return entry;
        }
    }

    private Listing listing(Path folder) {
        try {
            FileTime changed = Files.getLastModifiedTime(folder);
            Instant now = machine.now();
            synchronized (remembered) {
                Listing known = remembered.get(folder);
                if (known != null && known.changed().equals(changed) && known.readAt().isAfter(now.minus(LONGEST))) {
                    return known;
                }
            }
            Listing read = new Listing(changed, now, read(folder), new ConcurrentHashMap<>());
            // A change within the same tick of the disk's clock would not be seen.
            if (changed.toInstant().isBefore(now.minusSeconds(2))) {
                synchronized (remembered) {
                    remembered.put(folder, read);
                }
            }
            return read;
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    private static List<Entry> read(Path folder) throws IOException {
        List<Entry> entries = new ArrayList<>();
        try (DirectoryStream<Path> all = Files.newDirectoryStream(folder)) {
            for (Path path : all) {
                String name = path.getFileName().toString();
                if (Roots.isOwn(name)) {
                    continue;
                }
                try {
                    BasicFileAttributes found = Files.readAttributes(path, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
                    if (found.isDirectory() || found.isRegularFile()) {
                        entries.add(new Entry(name, Folded.of(name), found.isDirectory(), found.isDirectory() ? 0 : found.size(), found.lastModifiedTime().toInstant()));
                    }
                } catch (NoSuchFileException gone) {
                    continue;
                }
            }
        }
        return entries;
    }
}
