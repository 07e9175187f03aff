package oakbasket.server.review;

import io.swagger.v3.oas.annotations.media.Schema;
import oakbasket.core.standing.Review;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import oakbasket.server.web.ServedFile;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
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
@Needs(Permission.CHANGE)
class FileController {

    record Decision(@Nullable Review from, @Nullable Review to, @Schema(maxLength = ReceivedFiles.LONGEST_REASON) @Nullable String reason) {
    }

    private final ReceivedFiles files;
    private final FilesOnDisk disk;

    FileController(ReceivedFiles files, FilesOnDisk disk) {
        this.files = files;
        this.disk = disk;
    }

    @GetMapping("/api/files/{id}")
    ResponseEntity<Resource> download(@PathVariable long id) {
        ReceivedFile file = files.byId(id);
        return ServedFile.saved(disk.leaving(file), file.sha256(), file.storedName());
    }

    @GetMapping("/api/files/{id}/preview")
    ResponseEntity<Resource> preview(@PathVariable long id) {
        ReceivedFile file = files.byId(id);
        return ServedFile.shown(disk.leaving(file), file.sha256(), file.mediaType());
    }

    @PostMapping("/api/files/{id}/review")
    @ResponseStatus(org.springframework.http.HttpStatus.NO_CONTENT)
    void review(@PathVariable long id, @RequestBody Decision decision, @AuthenticationPrincipal Account account) {
        if (decision.from() == null || decision.to() == null) {
            throw Problem.unreadable("unreadable");
        }
        files.review(id, decision.from(), decision.to(), decision.reason() == null ? "" : decision.reason(), account.id());
    }
}
