package oakbasket.server.contactchange;

import java.util.List;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Merging and discarding contacts, and undoing what was done to them. */
@RestController
@Needs(Permission.CHANGE)
class ContactChangeController {

    /** Which contact goes into which; the versions as they were seen. */
    record Merge(long keep, long gone, @Nullable Integer keepVersion, @Nullable Integer goneVersion) {
    }

    private final Merging merging;
    private final ContactActs acts;

    ContactChangeController(Merging merging, ContactActs acts) {
        this.merging = merging;
        this.acts = acts;
    }

    /** Puts a provisional contact aside, or one that never was in a round. */
    @PostMapping("/api/contacts/{id}/discard")
    Merging.ContactsChanged discard(@PathVariable long id, @AuthenticationPrincipal Account account) {
        return merging.discard(id, account.id());
    }

    @GetMapping("/api/contacts/{id}/alike")
    List<Merging.Alike> alike(@PathVariable long id) {
        return merging.like(id);
    }

    @GetMapping("/api/contacts/twice")
    List<Merging.Pair> twice() {
        return merging.twice();
    }

    @PostMapping("/api/contacts/merge")
    Merging.ContactsChanged merge(@RequestBody Merge body, @AuthenticationPrincipal Account account) {
        return merging.merge(body.keep(), body.keepVersion(), body.gone(), body.goneVersion(), account.id());
    }

    @GetMapping("/api/contact-acts")
    List<ContactAct> acts() {
        return acts.latest();
    }

    @PostMapping("/api/contact-acts/{id}/undo")
    ContactActs.Undone undo(@PathVariable long id) {
        return acts.undo(id);
    }
}
