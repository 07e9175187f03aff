package oakbasket.server.digest;

import java.util.List;
import java.util.Objects;
import java.util.Set;
import oakbasket.core.digest.DigestPlan;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** How the signed-in account is told by mail of what has come. */
@RestController
@Needs(Permission.OWN)
class DigestController {

    record DigestView(DigestPlan plan, Set<Long> muted, String problem) {
    }

    record DigestWish(@Nullable DigestPlan plan, @Nullable List<Long> muted) {
    }

    private final Digests digests;

    DigestController(Digests digests) {
        this.digests = digests;
    }

    @GetMapping("/api/digest")
    DigestView wanted(@AuthenticationPrincipal Account account) {
        return view(digests.of(account.id()));
    }

    @PutMapping("/api/digest")
    DigestView change(@RequestBody DigestWish wish, @AuthenticationPrincipal Account account) {
        List<Long> muted = wish.muted() == null ? List.of() : wish.muted();
        if (wish.plan() == null || muted.stream().anyMatch(Objects::isNull)) {
            throw Problem.unreadable("unreadable");
        }
        return view(digests.change(account.id(), wish.plan(), Set.copyOf(muted)));
    }

    private static DigestView view(Wanted wanted) {
        return new DigestView(wanted.plan(), Digests.muted(wanted), wanted.problem());
    }
}
