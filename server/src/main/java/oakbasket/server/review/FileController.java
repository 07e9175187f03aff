package oakbasket.server.review;

import io.swagger.v3.oas.annotations.media.Schema;
import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.Set;
import oakbasket.core.standing.Review;
import oakbasket.server.account.Account;
import oakbasket.server.problem.Problem;
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
    private final FilesOnDisk disk;

    FileController(ReceivedFiles files, FilesOnDisk disk) {
        this.files = files;
        this.disk = disk;
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

    @PostMapping("/api/files/{id}/review")
    @ResponseStatus(org.springframework.http.HttpStatus.NO_CONTENT)
    void review(@PathVariable long id, @RequestBody Decision decision, @AuthenticationPrincipal Account account) {
        if (decision.from() == null || decision.to() == null) {
            throw Problem.unreadable("unreadable");
        }
        files.review(id, decision.from(), decision.to(), decision.reason() == null ? "" : decision.reason(), account.id());
    }

    private ResponseEntity<Resource> serve(ReceivedFile file, MediaType type, ContentDisposition disposition) {
        return ResponseEntity.ok()
                .contentType(type)
                .eTag(HexFormat.of().formatHex(file.sha256()))
                .cacheControl(CacheControl.noCache().cachePrivate())
                .header(HttpHeaders.CONTENT_DISPOSITION, disposition.toString())
                .header("Content-Security-Policy", SANDBOX)
                .body(new FileSystemResource(disk.present(file)));
    }
}
