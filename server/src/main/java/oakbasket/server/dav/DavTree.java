package oakbasket.server.dav;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import oakbasket.core.filing.Place;
import oakbasket.core.naming.ClashNumber;
import oakbasket.server.removal.RemovedFiles;
import oakbasket.server.review.FilesOnDisk;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Roots;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What a mounted share shows: a folder for each root that can be reached, and below it what lies there. Links, marks of our own and the bin are not shown. */
@Component
class DavTree {

    /**
     * Something in the share.
     *
     * @param path on the disk; null for the folder that holds the roots
     */
    record Node(String name, @Nullable Path path, boolean folder, long bytes, Instant changedAt) {
        /** Differs whenever the content may. */
        String tag() {
            return "\"" + Long.toHexString(bytes) + "-" + Long.toHexString(changedAt.getEpochSecond()) + Integer.toHexString(changedAt.getNano()) + "\"";
        }
    }

    private final Roots roots;
    private final FileStore store;
    private final RemovedFiles removed;
    private final ReceivedFiles files;
    private final FilesOnDisk disk;
    private final String first;

    DavTree(Roots roots, FileStore store, RemovedFiles removed, ReceivedFiles files, FilesOnDisk disk, Words words) {
        this.disk = disk;
        this.files = files;
        this.roots = roots;
        this.store = store;
        this.removed = removed;
        this.first = words.of("root.first");
    }

    /** What has this path; its segments are plain names. */
    Optional<Node> find(List<String> segments) {
        if (segments.isEmpty()) {
            return Optional.of(new Node("", null, true, 0, Instant.EPOCH));
        }
        Optional<Roots.Root> root = roots.all().stream().filter(one -> name(one).equals(segments.get(0)) && roots.isThere(one.id())).findFirst();
        if (root.isEmpty() || segments.stream().anyMatch(segment -> segment.isEmpty() || segment.equals(".") || segment.equals("..") || segment.indexOf('/') >= 0 || segment.indexOf('\0') >= 0)) {
            return Optional.empty();
        }
        if (segments.size() == 1) {
            return node(name(root.get()), roots.path(root.get().id()));
        }
        List<String> below = segments.subList(1, segments.size());
        if (below.stream().anyMatch(Roots::isOwn) || hidden(root.get().id(), below.get(0))) {
            return Optional.empty();
        }
        try {
            String place = Place.of(root.get().id(), String.join("/", below));
            return store.obstacle(place) != null ? Optional.empty() : node(below.get(below.size() - 1), store.resolve(place)).filter(found -> seen(place, found.folder()));
        } catch (IllegalArgumentException outside) {
            return Optional.empty();
        }
    }

    private boolean hidden(long root, String name) {
        return root == Place.FIRST_ROOT && name.equals(removed.folder());
    }

    /** What lies in a folder, in no order; to be closed. */
    Stream<Node> children(List<String> segments, Node folder) throws IOException {
        Path path = folder.path();
        if (path == null) {
            return roots.all().stream().filter(root -> roots.isThere(root.id())).flatMap(root -> node(name(root), roots.path(root.id())).stream());
        }
        boolean top = segments.size() == 1 && segments.get(0).equals(first);
        return Files.list(path).filter(one -> !Roots.isOwn(one.getFileName().toString()) && !(top && hidden(Place.FIRST_ROOT, one.getFileName().toString())))
                .flatMap(one -> node(one.getFileName().toString(), one).stream()).filter(one -> !Acting.restricted() || seen(below(segments, one.name()), one.folder()));
    }

    /**
     * Looks at a file that is about to leave: a received one only while it holds what was checked.
     *
     * @throws Problem with status 409 when it holds something else now
     */
    void leaves(List<String> segments, Node node) {
        String place = below(segments.subList(0, segments.size() - 1), node.name());
        files.atPlaces(List.of(ClashNumber.key(place))).stream().filter(file -> file.storedPath().equals(place)).forEach(disk::leaving);
    }

    private String below(List<String> segments, String name) {
        long root = roots.all().stream().filter(one -> name(one).equals(segments.get(0))).findFirst().orElseThrow().id();
        return Place.of(root, String.join("/", Stream.concat(segments.stream().skip(1), Stream.of(name)).toList()));
    }

    /** Whether what lies at a place is seen by whoever this thread works for. */
    private boolean seen(String place, boolean folder) {
        return folder ? !files.hidesFolder(place + "/") : files.hidden(List.of(ClashNumber.key(place))).isEmpty();
    }

    private String name(Roots.Root root) {
        return root.id() == Place.FIRST_ROOT ? first : root.name();
    }

    private static Optional<Node> node(String name, Path path) {
        try {
            BasicFileAttributes found = Files.readAttributes(path, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
            return found.isDirectory() || found.isRegularFile() ? Optional.of(new Node(name, path, found.isDirectory(), found.isDirectory() ? 0 : found.size(), found.lastModifiedTime().toInstant()))
                    : Optional.empty();
        } catch (IOException gone) {
            return Optional.empty();
        }
    }

    /** The plain names of a path with slashes; a slash at its end says nothing. */
    static List<String> segments(String path) {
        return Arrays.stream(path.split("/")).filter(segment -> !segment.isEmpty()).toList();
    }
}
