package oakbasket.server.loose;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
import java.util.Objects;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import oakbasket.server.web.ServedFile;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Papers that came without a link. */
@RestController
@Needs(Permission.CHANGE)
class LooseController {

    record LooseTaken(long id) {
    }

    record LooseDecision(@Nullable List<Long> ids, long basketId, long itemId) {
    }

    record LooseUndo(@Nullable List<Long> ids) {
    }

    private final LooseFiles loose;
    private final LooseFiling filing;

    LooseController(LooseFiles loose, LooseFiling filing) {
        this.loose = loose;
        this.filing = filing;
    }

    @Operation(summary = "Puts a paper into the tray; the body is the file itself")
    @PostMapping("/api/loose")
    @ResponseStatus(HttpStatus.CREATED)
    LooseTaken putIn(@RequestParam(defaultValue = "") String name, HttpServletRequest request, @AuthenticationPrincipal Account account) throws IOException {
        return new LooseTaken(loose.put(name, request.getContentLengthLong(), request.getInputStream(), account.id()));
    }

    @PostMapping("/api/loose/file")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void file(@RequestBody LooseDecision decision, @AuthenticationPrincipal Account account) {
        filing.file(checked(decision.ids()), decision.basketId(), decision.itemId(), account.id());
    }

    @PostMapping("/api/loose/undo")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void undo(@RequestBody LooseUndo undo, @AuthenticationPrincipal Account account) {
        filing.undo(checked(undo.ids()), account.id());
    }

    private static List<Long> checked(@Nullable List<Long> ids) {
        if (ids == null || ids.isEmpty() || ids.size() > LooseFiles.MOST || ids.stream().anyMatch(Objects::isNull)) {
            throw Problem.unreadable("unreadable");
        }
        return ids;
    }

    @PostMapping("/api/loose/{id}/out")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void out(@PathVariable long id, @AuthenticationPrincipal Account account) {
        loose.out(id, account.id());
    }

    @PostMapping("/api/loose/{id}/back")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void back(@PathVariable long id, @AuthenticationPrincipal Account account) {
        loose.back(id, account.id());
    }

    @GetMapping("/api/loose/{id}/content")
    ResponseEntity<Resource> content(@PathVariable long id) {
        LooseFile file = loose.byId(id);
        return ServedFile.saved(loose.path(file), file.sha256(), file.fileName());
    }

    @GetMapping("/api/loose/{id}/preview")
    ResponseEntity<Resource> preview(@PathVariable long id) {
        LooseFile file = loose.byId(id);
        return ServedFile.shown(loose.path(file), file.sha256(), file.mediaType());
    }
}
