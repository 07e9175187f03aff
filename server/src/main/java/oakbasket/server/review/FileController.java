package oakbasket.server.review;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.Arrays;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Set;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import oakbasket.core.naming.ClashNumber;
import oakbasket.core.standing.Review;
import oakbasket.server.account.Account;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.FileStore;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Taking received files away and looking at them. What a sender sent is never served in a way a browser would run. */
@RestController
class FileController {

    record Decision(@Nullable Review from, @Nullable Review to, @Schema(maxLength = ReceivedFiles.LONGEST_REASON) @Nullable String reason) {
    }

    /** What may be shown rather than saved; everything else is an attachment only. */
    private static final Set<String> SHOWN = Set.of("image/png", "image/jpeg", "image/gif", "image/webp", "application/pdf");
    private static final String SANDBOX = "sandbox; default-src 'none'";

    private final ReceivedFiles files;
    private final FileStore store;

    FileController(ReceivedFiles files, FileStore store) {
        this.files = files;
        this.store = store;
    }

    @GetMapping("/api/files/{id}")
    ResponseEntity<Resource> download(@PathVariable long id) {
        ReceivedFile file = files.byId(id);
        return serve(file, MediaType.APPLICATION_OCTET_STREAM, ContentDisposition.attachment().filename(file.storedName(), StandardCharsets.UTF_8).build());
    }

    @GetMapping("/api/files/{id}/preview")
    ResponseEntity<Resource> preview(@PathVariable long id) {
        ReceivedFile file = files.byId(id);
        MediaType type = SHOWN.contains(file.mediaType()) ? MediaType.valueOf(file.mediaType())
                : file.mediaType().startsWith("text/") || file.mediaType().endsWith("xml") || file.mediaType().endsWith("json") ? MediaType.TEXT_PLAIN : null;
        if (type == null) {
            throw Problem.refused("no-preview");
        }
        return serve(file, type, ContentDisposition.inline().build());
    }

    /** Several files as one ZIP, streamed; names as in the folders. */
    @GetMapping("/api/files.zip")
    void zip(@RequestParam(required = false, defaultValue = "") List<Long> id, @RequestParam(required = false) @Nullable Long basket,
            @RequestParam(required = false) @Nullable Long round, HttpServletResponse response) throws IOException {
        List<ReceivedFile> chosen = round != null ? files.ofRound(round) : basket != null ? files.ofBasket(basket) : files.byIds(id);
        if (chosen.isEmpty()) {
            throw Problem.notFound("no-files-chosen");
        }
        for (ReceivedFile file : chosen) {
            present(file);
        }
        response.setContentType("application/zip");
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename("oak-basket.zip").build().toString());
        response.setHeader(HttpHeaders.CACHE_CONTROL, "no-store");
        write(chosen, response.getOutputStream());
    }

    @PostMapping("/api/files/{id}/review")
    @ResponseStatus(org.springframework.http.HttpStatus.NO_CONTENT)
    void review(@PathVariable long id, @RequestBody Decision decision, @AuthenticationPrincipal Account account) {
        if (decision.from() == null || decision.to() == null) {
            throw Problem.unreadable("unreadable");
        }
        files.review(id, decision.from(), decision.to(), decision.reason() == null ? "" : decision.reason(), account.id());
    }

    private void write(List<ReceivedFile> chosen, OutputStream out) throws IOException {
        int prefix = commonFolder(chosen);
        Set<String> used = new HashSet<>();
        try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
            zip.setLevel(Deflater.BEST_SPEED);
            for (ReceivedFile file : chosen) {
                String name = file.storedPath().substring(prefix);
                for (int attempt = 2; !used.add(name); attempt++) {
                    name = ClashNumber.on(file.storedPath().substring(prefix), attempt);
                }
                ZipEntry entry = new ZipEntry(name);
                entry.setLastModifiedTime(FileTime.from(file.receivedAt()));
                zip.putNextEntry(entry);
                Files.copy(store.resolve(file.storedPath()), zip);
                zip.closeEntry();
            }
        }
    }

    /** How many characters of folders all files share, the last slash included. */
    private static int commonFolder(List<ReceivedFile> chosen) {
        String[] common = folders(chosen.get(0));
        for (ReceivedFile file : chosen) {
            String[] here = folders(file);
            int mismatch = Arrays.mismatch(common, here);
            common = mismatch < 0 ? common : Arrays.copyOf(common, mismatch);
        }
        return Arrays.stream(common).mapToInt(folder -> folder.length() + 1).sum();
    }

    private static String[] folders(ReceivedFile file) {
        String[] segments = file.storedPath().split("/");
        return Arrays.copyOf(segments, segments.length - 1);
    }

    private ResponseEntity<Resource> serve(ReceivedFile file, MediaType type, ContentDisposition disposition) {
        return ResponseEntity.ok()
                .contentType(type)
                .eTag(HexFormat.of().formatHex(file.sha256()))
                .cacheControl(CacheControl.noCache().cachePrivate())
                .header(HttpHeaders.CONTENT_DISPOSITION, disposition.toString())
                .header("Content-Security-Policy", SANDBOX)
                .body(new FileSystemResource(present(file)));
    }

    private Path present(ReceivedFile file) {
        Path path = store.resolve(file.storedPath());
        if (!Files.isReadable(path)) {
            throw Problem.conflict("file-missing", file.storedPath());
        }
        return path;
    }
}
