package oakbasket.server.folder;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.filing.Place;
import oakbasket.core.naming.Folded;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.basket.Baskets;
import oakbasket.server.filing.Circumstances;
import oakbasket.server.filing.Effects;
import oakbasket.server.problem.Problem;
import oakbasket.server.refiling.Refiling;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Needs;
import oakbasket.server.storage.Acting;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The folders of a root, page by page. */
@RestController
@Needs(Permission.CHANGE)
class FolderController {

    static final int PAGE = 100;
    private static final int MOST_FOUND = 500;

    /**
     * Something in a folder.
     *
     * @param path its folder below the root, where it was found by searching; else empty
     * @param fileId the received file; null for folders, copies and what nobody knows
     * @param copy whether it is a copy that a rule made
     * @param kind the name of its kind; null where there is none
     */
    record FolderRow(String name, String path, boolean folder, long bytes, Instant changedAt, @Nullable Long fileId, boolean copy, @Nullable FileKind kind, String mediaType, String person, String item, @Nullable Long roundId,
            @Nullable Long basketId, List<String> marks) {
    }

    record FolderPage(long root, String path, int folders, int files, int total, List<FolderRow> rows) {
    }

    record NewFolder(@Nullable Long root, @Nullable String path, @Nullable String name) {
    }

    record FolderMove(@Nullable Long root, @Nullable String path, @Nullable Long toRoot, @Nullable String toPath, @Nullable String name) {
    }

    record FilesMove(@Nullable List<Long> files, @Nullable Long root, @Nullable String path) {
    }

    record FileName(@Nullable String name) {
    }

    private final Folders folders;
    private final FolderListings listings;
    private final ReceivedFiles files;
    private final Effects effects;
    private final Baskets baskets;
    private final Rounds rounds;

    FolderController(Folders folders, FolderListings listings, ReceivedFiles files, Effects effects, Baskets baskets, Rounds rounds) {
        this.folders = folders;
        this.listings = listings;
        this.files = files;
        this.effects = effects;
        this.baskets = baskets;
        this.rounds = rounds;
    }

    /** A folder, sorted, from some place on; with words or a kind, what is found anywhere below it. */
    @GetMapping("/api/folders")
    FolderPage page(@RequestParam(defaultValue = "1") long root,
            @RequestParam(defaultValue = "") String path,
            @RequestParam(defaultValue = "NAME") FolderListings.By by,
            @RequestParam(defaultValue = "false") boolean down,
            @RequestParam(defaultValue = "0") int from,
            @RequestParam(defaultValue = "") String find,
            @RequestParam(required = false) @Nullable FileKind kind) {
        Path folder = folders.folder(root, path);
        if (!find.isBlank() || kind != null) {
            return found(root, path, find.strip(), kind, Math.max(0, from));
        }
        List<FolderListings.Entry> all = seen(root, path, listings.of(folder, by));
        int inner = (int) all.stream().takeWhile(FolderListings.Entry::folder).count();
        List<FolderListings.Entry> ordered = all;
        if (down) {
            ordered = new ArrayList<>(all.subList(0, inner));
            Collections.reverse(ordered);
            List<FolderListings.Entry> rest = new ArrayList<>(all.subList(inner, all.size()));
            Collections.reverse(rest);
            ordered.addAll(rest);
        }
        List<FolderListings.Entry> shown = ordered.stream().skip(Math.max(0, from)).limit(PAGE).map(entry -> FolderListings.now(folder, entry)).toList();
        return new FolderPage(root, path, inner, all.size() - inner, all.size(), rows(root, path, shown));
    }

    /** What is left for whoever does not see every round. */
    private List<FolderListings.Entry> seen(long root, String path, List<FolderListings.Entry> all) {
        if (!Acting.restricted()) {
            return all;
        }
        String prefix = path.isEmpty() ? Place.of(root, "") : Place.of(root, path) + "/";
        List<String> keys = all.stream().filter(entry -> !entry.folder()).map(entry -> Folders.key(prefix + entry.name())).toList();
        Set<String> hidden = new HashSet<>(files.hidden(keys));
        Map<String, Long> copies = effects.copiesAt(keys);
        Set<Long> known = files.byIds(List.copyOf(copies.values())).stream().map(ReceivedFile::id).collect(Collectors.toSet());
        copies.forEach((key, file) -> {
            if (!known.contains(file)) {
                hidden.add(key);
            }
        });
        return all.stream().filter(entry -> entry.folder() ? !files.hidesFolder(prefix + entry.name() + "/") : !hidden.contains(Folders.key(prefix + entry.name()))).toList();
    }

    private List<FolderRow> rows(long root, String path, List<FolderListings.Entry> shown) {
        String prefix = path.isEmpty() ? Place.of(root, "") : Place.of(root, path) + "/";
        List<String> keys = shown.stream().filter(entry -> !entry.folder()).map(entry -> Folders.key(prefix + entry.name())).toList();
        Map<String, ReceivedFile> known = files.atPlaces(keys).stream().collect(Collectors.toMap(file -> Folders.key(file.storedPath()), file -> file));
        Map<String, Long> copies = effects.copiesAt(keys);
        Told told = told(List.copyOf(known.values()));
        return shown.stream().map(entry -> {
            String key = Folders.key(prefix + entry.name());
            ReceivedFile file = entry.folder() ? null : known.get(key);
            return file == null ? new FolderRow(entry.name(), "", entry.folder(), entry.bytes(), entry.changedAt(), copies.get(key), copies.containsKey(key), null, "", "", "", null, null, List.of())
                    : told.row(file, "", entry.bytes(), entry.changedAt());
        }).toList();
    }

    private FolderPage found(long root, String path, String find, @Nullable FileKind kind, int from) {
        String prefix = path.isEmpty() ? Place.of(root, "") : Place.of(root, path) + "/";
        List<ReceivedFile> all = files.foundBelow(prefix, Folded.of(find), root == Place.FIRST_ROOT && path.isEmpty(), MOST_FOUND * (kind == null ? 1 : 20)).stream()
                .filter(file -> kind == null || Circumstances.kind(Circumstances.Sent.of(file)) == kind).limit(MOST_FOUND).toList();
        List<ReceivedFile> shown = all.stream().skip(from).limit(PAGE).toList();
        Told told = told(shown);
        return new FolderPage(root, path, 0, all.size(), all.size(), shown.stream().map(file -> told.row(file, Place.folder(Place.path(file.storedPath())), file.sizeBytes(), file.receivedAt())).toList());
    }

    private Told told(List<ReceivedFile> some) {
        return new Told(baskets.names(some.stream().map(ReceivedFile::basketId).distinct().toList()), rounds.itemTitles(some.stream().map(ReceivedFile::itemId).distinct().toList()),
                effects.marks(some.stream().map(ReceivedFile::id).toList()));
    }

    private record Told(Map<Long, String> people, Map<Long, String> items, Map<Long, TreeSet<String>> marks) {
        FolderRow row(ReceivedFile file, String path, long bytes, Instant changedAt) {
            return new FolderRow(file.storedName(), path, false, bytes, changedAt, file.id(), false, Circumstances.kind(Circumstances.Sent.of(file)), file.mediaType(), people.getOrDefault(file.basketId(), ""),
                    items.getOrDefault(file.itemId(), ""), file.roundId(), file.basketId(), List.copyOf(marks.getOrDefault(file.id(), new TreeSet<>())));
        }
    }

    @PostMapping("/api/folders/new")
    @ResponseStatus(HttpStatus.CREATED)
    void make(@RequestBody NewFolder typed) {
        folders.make(root(typed.root()), text(typed.path()), text(typed.name()));
    }

    /** Removes a folder in which nothing lies. */
    @PostMapping("/api/folders/remove")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@RequestBody NewFolder typed) {
        folders.removeEmpty(root(typed.root()), text(typed.path()));
    }

    /** Moves or renames a whole folder, as one batch that can be taken back. */
    @PostMapping("/api/folders/move")
    Refiling moveFolder(@RequestBody FolderMove typed, @AuthenticationPrincipal Account account) {
        return folders.moveFolder(root(typed.root()), text(typed.path()), root(typed.toRoot()), text(typed.toPath()), text(typed.name()), account.id());
    }

    /** Moves files into a folder. */
    @PostMapping("/api/folders/files")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void moveFiles(@RequestBody FilesMove typed, @AuthenticationPrincipal Account account) {
        if (typed.files() == null || typed.files().isEmpty() || typed.files().size() > MOST_FOUND || typed.files().stream().anyMatch(Objects::isNull)) {
            throw Problem.unreadable("unreadable");
        }
        folders.move(typed.files(), root(typed.root()), text(typed.path()), account.id());
    }

    @PostMapping("/api/folders/files/{id}/name")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void rename(@PathVariable long id, @RequestBody FileName typed, @AuthenticationPrincipal Account account) {
        folders.rename(id, text(typed.name()), account.id());
    }

    private static long root(@Nullable Long typed) {
        return typed == null ? Place.FIRST_ROOT : typed;
    }

    private static String text(@Nullable String typed) {
        return typed == null ? "" : typed;
    }
}
