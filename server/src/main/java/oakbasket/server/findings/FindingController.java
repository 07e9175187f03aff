package oakbasket.server.findings;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.basket.Baskets;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.security.Needs;
import oakbasket.server.storage.Roots;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What was changed by hand on the disk. */
@RestController
@Needs(Permission.CHANGE)
class FindingController {

    private static final int MOST = 500;

    /** A finding; {@code movedTo} is where a missing file was found to lie now. */
    record FindingRow(long id, Finding.Kind kind, String place, @Nullable Long fileId, String person, long bytes, Instant foundAt, boolean leftAlone, @Nullable String movedTo) {
    }

    record FindingList(@Nullable Instant lookedAt, int count, List<FindingRow> findings) {
    }

    record FindingChoice(Findings.@Nullable Choice choice) {
    }

    private final Findings findings;
    private final DiskScan scan;
    private final ReceivedFiles files;
    private final Baskets baskets;
    private final Roots roots;

    FindingController(Findings findings, DiskScan scan, ReceivedFiles files, Baskets baskets, Roots roots) {
        this.findings = findings;
        this.scan = scan;
        this.files = files;
        this.baskets = baskets;
        this.roots = roots;
    }

    @GetMapping("/api/findings")
    FindingList all() {
        List<Finding> all = findings.all();
        Map<Long, ReceivedFile> known = files.byIds(all.stream().map(Finding::fileId).filter(Objects::nonNull).toList()).stream().collect(Collectors.toMap(ReceivedFile::id, file -> file));
        Map<Long, String> people = baskets.names(known.values().stream().map(ReceivedFile::basketId).distinct().toList());
        // What a missing file was moved to is told with that file.
        Set<Long> told = all.stream().flatMap(one -> findings.movedTo(one, all).stream()).map(Finding::id).collect(Collectors.toSet());
        List<Finding> shown = all.stream().filter(one -> !told.contains(one.id())).toList();
        return new FindingList(scan.lastEnded(), shown.size(), shown.stream().limit(MOST).map(one -> {
            ReceivedFile file = one.fileId() == null ? null : known.get(one.fileId());
            return new FindingRow(one.id(), one.kind(), roots.words(one.place()), one.fileId(), file == null ? "" : people.getOrDefault(file.basketId(), ""), one.sizeBytes(), one.foundAt(), one.leftAlone(),
                    findings.movedTo(one, all).map(there -> roots.words(there.place())).orElse(null));
        }).toList());
    }

    /** Looks at all folders now. */
    @PostMapping("/api/findings/look")
    FindingList look() {
        scan.look();
        return all();
    }

    @PostMapping("/api/findings/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void settle(@PathVariable long id, @RequestBody FindingChoice chosen, @AuthenticationPrincipal Account account) {
        if (chosen.choice() == null) {
            throw Problem.unreadable("unreadable");
        }
        findings.settle(id, chosen.choice(), account.id());
    }
}
