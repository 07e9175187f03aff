package oakbasket.server.folder;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import oakbasket.core.filing.Place;
import oakbasket.core.naming.ClashNumber;
import oakbasket.core.naming.SafeName;
import oakbasket.server.filing.Effects;
import oakbasket.server.filing.FileMoves;
import oakbasket.server.filing.Filing;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.journal.Why;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.refiling.Refiling;
import oakbasket.server.refiling.Refilings;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Roots;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Changing folders by hand. Every file keeps its record and gets its line in the journal; a whole folder moves as one batch. */
@Service
class Folders {

    /** The longest path below a root in bytes; with it stays room for what any disk and share needs besides. */
    private static final int LONGEST_PATH = 3_000;

    private final Roots roots;
    private final FileStore store;
    private final ReceivedFiles files;
    private final FileMoves moves;
    private final Filing filing;
    private final Effects effects;
    private final Refilings refilings;
    private final LiveHub live;

    Folders(Roots roots, FileStore store, ReceivedFiles files, FileMoves moves, Filing filing, Effects effects, Refilings refilings, LiveHub live) {
        this.roots = roots;
        this.store = store;
        this.files = files;
        this.moves = moves;
        this.filing = filing;
        this.effects = effects;
        this.refilings = refilings;
        this.live = live;
    }

    /**
     * The folder that a caller names.
     *
     * @param path segments parted by slashes; empty means the root itself
     * @throws Problem with status 404 when there is no such folder below that root
     */
    Path folder(long root, String path) {
        if (!roots.has(root)) {
            throw Problem.notFound("no-root");
        }
        if (!roots.isThere(root)) {
            throw Problem.conflict("root-is-away", roots.name(root));
        }
        if (path.isEmpty()) {
            return roots.path(root);
        }
        try {
            String place = Place.of(root, path);
            Path folder = store.resolve(place);
            if (files.hidesPath(place + "/") || !Files.isDirectory(folder, LinkOption.NOFOLLOW_LINKS) || store.obstacle(place + "/x") != null) {
                throw Problem.notFound("no-folder");
            }
            return folder;
        } catch (IllegalArgumentException outside) {
            throw Problem.notFound("no-folder");
        }
    }

    /** Makes an empty folder. */
    void make(long root, String path, String name) {
        Path parent = folder(root, path);
        String place = place(root, path, checked(name));
        try {
            Files.createDirectory(parent.resolve(Place.name(place)));
        } catch (FileAlreadyExistsException taken) {
            throw Problem.field("name", "name-taken");
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        changed();
    }

    /** Removes an empty folder. */
    void removeEmpty(long root, String path) {
        if (path.isEmpty()) {
            throw Problem.conflict("folder-is-root");
        }
        try {
            Files.delete(folder(root, path));
        } catch (DirectoryNotEmptyException full) {
            throw Problem.conflict("folder-not-empty");
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        changed();
    }

    /** Gives a file another name in its folder. */
    void rename(long file, String name, long account) {
        ReceivedFile known = files.byId(file);
        String place = (Place.folder(known.storedPath()).isEmpty() ? "" : Place.folder(known.storedPath()) + "/") + checked(name);
        move(known, place, Act.RENAMED, "renamed", account);
        changed();
    }

    /** Moves files into a folder under their names; a name that is taken gets a number. */
    void move(List<Long> chosen, long root, String path, long account) {
        folder(root, path);
        for (ReceivedFile file : files.byIds(chosen)) {
            String folder = path.isEmpty() ? Place.of(root, "") : Place.of(root, path);
            String name = file.storedName();
            String place = path.isEmpty() ? folder + name : filing.free(folder, name);
            if (!Place.folder(file.storedPath()).equals(Place.folder(place))) {
                fits(place);
                move(file, place, Act.MOVED, "by-hand", account);
            }
        }
        changed();
    }

    private void move(ReceivedFile file, String place, Act act, String why, long account) {
        FileMoves.Outcome outcome = moves.move(file, () -> {
            if (!place.equals(file.storedPath()) && filing.taken(place)) {
                throw act == Act.RENAMED ? Problem.field("name", "name-taken") : Problem.conflict("place-taken");
            }
            return place;
        }, () -> Journal.Cause.by(act, Why.of(why), account), () -> effects.trayByPlace(file.id(), place));
        if (!outcome.there()) {
            throw outcome == FileMoves.Outcome.MISSING ? Problem.conflict("file-missing", file.storedPath()) : Problem.conflict("changed-elsewhere");
        }
    }

    /** Moves or renames a folder with all that is known in it, as one batch. What is not known stays where it is. */
    Refiling moveFolder(long root, String path, long toRoot, String toPath, String name, long account) {
        folder(root, path);
        folder(toRoot, toPath);
        String from = Place.of(root, path) + "/";
        String to = place(toRoot, toPath, checked(name)) + "/";
        if (path.isEmpty() || to.startsWith(from)) {
            throw Problem.conflict("folder-into-itself");
        }
        if (Files.exists(store.resolve(to.substring(0, to.length() - 1)), LinkOption.NOFOLLOW_LINKS)) {
            throw Problem.field("name", "name-taken");
        }
        List<Refilings.ByHand> steps = new ArrayList<>();
        for (ReceivedFile file : files.below(from)) {
            String place = to + file.storedPath().substring(from.length());
            fits(place);
            steps.add(new Refilings.ByHand(file, place));
        }
        return refilings.byHand(steps, account);
    }

    private static void fits(String place) {
        if (place.getBytes(StandardCharsets.UTF_8).length > LONGEST_PATH) {
            throw Problem.refused("path-too-long", LONGEST_PATH);
        }
    }

    private static String place(long root, String path, String name) {
        String place = Place.of(root, path.isEmpty() ? name : path + "/" + name);
        fits(place);
        return place;
    }

    private static String checked(@Nullable String name) {
        String typed = name == null ? "" : name.strip();
        if (typed.isEmpty() || !SafeName.of(typed).equals(typed) || Roots.isOwn(typed)) {
            throw Problem.field("name", typed.isEmpty() ? "name-missing" : "name-unsafe", typed.isEmpty() ? "" : SafeName.of(typed));
        }
        return typed;
    }

    private void changed() {
        live.publish(new LiveEvent(LiveEvent.FILING, 0, null));
    }

    /** Two places that a disk might take for one have the same key. */
    static String key(String place) {
        return ClashNumber.key(place);
    }
}
