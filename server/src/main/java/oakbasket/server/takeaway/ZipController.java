package oakbasket.server.takeaway;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import oakbasket.core.filing.Place;
import oakbasket.core.naming.ClashNumber;
import oakbasket.core.naming.SafeName;
import oakbasket.core.standing.Review;
import oakbasket.core.team.Permission;
import oakbasket.server.basket.Baskets;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.FilesOnDisk;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Needs;
import oakbasket.server.storage.Roots;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Received files as one archive, named after the round and, where they are one person's, after the person. */
@RestController
@Needs(Permission.CHANGE)
class ZipController {

    private final ReceivedFiles files;
    private final FilesOnDisk disk;
    private final Rounds rounds;
    private final Baskets baskets;
    private final Roots roots;
    private final Words words;

    ZipController(ReceivedFiles files, FilesOnDisk disk, Rounds rounds, Baskets baskets, Roots roots, Words words) {
        this.words = words;
        this.files = files;
        this.disk = disk;
        this.rounds = rounds;
        this.baskets = baskets;
        this.roots = roots;
    }

    /** Several files as one ZIP, streamed; names as in the folders. */
    @GetMapping("/api/files.zip")
    void zip(@RequestParam(required = false, defaultValue = "") List<Long> id, @RequestParam(required = false) @Nullable Long basket,
            @RequestParam(required = false) @Nullable Long round, @RequestParam(required = false) @Nullable Long root, @RequestParam(defaultValue = "") String path, HttpServletResponse response) throws IOException {
        List<ReceivedFile> chosen = root != null && !path.isEmpty() ? files.below(Place.of(root, path) + "/") : round != null ? counting(files.ofRound(round)) : basket != null ? counting(files.ofBasket(basket)) : files.byIds(id);
        if (chosen.isEmpty()) {
            throw Problem.notFound("no-files-chosen");
        }
        for (ReceivedFile file : chosen) {
            disk.present(file);
        }
        disk.warm(chosen);
        if (chosen.size() == 1) {
            disk.leaving(chosen.get(0));
        }
        response.setContentType("application/zip");
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename(SafeName.of((root != null && !path.isEmpty() ? Place.name(path) : round != null ? rounds.opened(round).title() : name(chosen)) + ".zip"), StandardCharsets.UTF_8).build().toString());
        response.setHeader(HttpHeaders.CACHE_CONTROL, "no-store");
        write(chosen, response.getOutputStream());
    }

    /** What was returned counts nowhere, and is no part of a set either; whoever wants it chooses it. */
    private static List<ReceivedFile> counting(List<ReceivedFile> all) {
        return all.stream().filter(file -> file.review() != Review.RETURNED).toList();
    }

    private String name(List<ReceivedFile> chosen) {
        List<Long> ofRounds = chosen.stream().map(ReceivedFile::roundId).distinct().toList();
        List<Long> ofBaskets = chosen.stream().map(ReceivedFile::basketId).distinct().toList();
        if (ofRounds.size() > 1) {
            return "Oak Basket";
        }
        String title = rounds.opened(ofRounds.get(0)).title();
        Map<Long, String> names = baskets.names(ofBaskets);
        return ofBaskets.size() == 1 ? title + " - " + names.getOrDefault(ofBaskets.get(0), "") : title;
    }

    private void write(List<ReceivedFile> chosen, OutputStream out) throws IOException {
        int prefix = commonFolder(chosen);
        Set<String> used = new HashSet<>();
        try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
            zip.setLevel(Deflater.BEST_SPEED);
            List<String> leftOut = new ArrayList<>();
            for (ReceivedFile file : chosen) {
                // Each is looked at before its own first byte: of a large set nobody waits for all to be read first.
                Path path = leaving(file);
                if (path == null) {
                    leftOut.add(roots.words(file.storedPath()));
                    continue;
                }
                String name = roots.words(file.storedPath()).substring(prefix);
                for (int attempt = 2; !used.add(name); attempt++) {
                    name = ClashNumber.on(roots.words(file.storedPath()).substring(prefix), attempt);
                }
                ZipEntry entry = new ZipEntry(name);
                entry.setLastModifiedTime(FileTime.from(file.receivedAt()));
                zip.putNextEntry(entry);
                Files.copy(path, zip);
                zip.closeEntry();
            }
            if (!leftOut.isEmpty()) {
                zip.putNextEntry(new ZipEntry(words.of("left-out.name")));
                zip.write(words.of("left-out.desk", leftOut.stream().map(place -> "- " + place).collect(Collectors.joining("\n"))).getBytes(StandardCharsets.UTF_8));
                zip.closeEntry();
            }
        }
    }

    private @Nullable Path leaving(ReceivedFile file) {
        try {
            return disk.leaving(file);
        } catch (Problem altered) {
            return null;
        }
    }

    /** How many characters of folders all files share, the last slash included. */
    private int commonFolder(List<ReceivedFile> chosen) {
        String[] common = folders(chosen.get(0));
        for (ReceivedFile file : chosen) {
            String[] here = folders(file);
            int mismatch = Arrays.mismatch(common, here);
            common = mismatch < 0 ? common : Arrays.copyOf(common, mismatch);
        }
        return Arrays.stream(common).mapToInt(folder -> folder.length() + 1).sum();
    }

    private String[] folders(ReceivedFile file) {
        String[] segments = roots.words(file.storedPath()).split("/");
        return Arrays.copyOf(segments, segments.length - 1);
    }
}
