package oakbasket.server.quarantine;

import java.util.List;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.held.HeldFiles;
import oakbasket.server.security.Needs;
import oakbasket.server.upload.Release;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The quarantine as a coordinator sees it. What lies there is never given out. */
@RestController
@Needs(Permission.CHANGE)
class QuarantineController {

    /** What lies there, the newest first. */
    record Quarantine(int count, List<HeldList.Held> files) {
    }

    private final HeldFiles held;
    private final HeldList list;
    private final Release release;

    QuarantineController(HeldFiles held, HeldList list, Release release) {
        this.held = held;
        this.list = list;
        this.release = release;
    }

    @GetMapping("/api/quarantine")
    Quarantine all() {
        return new Quarantine(held.count(), list.of(held.newest()));
    }

    @PostMapping("/api/quarantine/{id}/release")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void release(@PathVariable long id, @AuthenticationPrincipal Account account) {
        release.release(held.lying(id), account.id());
    }

    @PostMapping("/api/quarantine/{id}/destroy")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void destroy(@PathVariable long id, @AuthenticationPrincipal Account account) {
        release.destroy(held.lying(id), account.id());
    }
}
