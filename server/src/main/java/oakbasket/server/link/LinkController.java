package oakbasket.server.link;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import oakbasket.core.link.LinkChange;
import oakbasket.core.link.LinkLimits;
import oakbasket.core.link.LinkWindow;
import oakbasket.core.link.Passcode;
import oakbasket.core.link.ReadableName;
import oakbasket.core.team.Permission;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Needs;
import oakbasket.server.security.Noted;
import oakbasket.server.web.PublicAddress;
import oakbasket.server.web.Typed;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Every request link: its list, its terms, and what is done to one or to many. */
@RestController
@Needs(Permission.CHANGE)
@RequestMapping("/api/links")
class LinkController {

    private static final int MOST_AT_ONCE = 1_000;
    private static final int LONGEST_FIND = 200;

    /** What is done to links. */
    enum LinkActKind { PAUSE, GO_ON, WITHDRAW, GIVE_BACK, RENEW, PASSCODE }

    /** How long a link works. */
    enum EndKind { GATHERING, DAYS, UNTIL }

    /** Something done to a link. */
    record LinkEvent(long id, Instant at, String what, String said, String by, int links, boolean undone) {
    }

    /**
     * One link in full.
     *
     * @param suggestion the readable name that its round's title suggests
     */
    record LinkInFull(LinkList.ListedLink link, String url, String suggestion, List<LinkEvent> story) {
    }

    /**
     * An act on links: on those named, or on all that are wanted.
     *
     * @param ids at most 1,000; null where {@code all} says which
     * @param days for a renewal; null means while the round gathers
     * @param passcode one for all of them; empty means none any more
     */
    record LinkBulk(@Nullable LinkActKind kind, @Nullable List<Long> ids, LinkList.@Nullable Wanted all, @Nullable Integer days, @Nullable String passcode) {
    }

    /**
     * The terms of a link as a coordinator types them, in the round's zone.
     *
     * @param beginsOn a date; empty means at once
     * @param beginsAt a time of that day; empty means its first moment
     * @param endsOn a date, for {@code UNTIL}
     * @param endsAt a time of that day; empty means its end
     * @param name the readable part of the address; empty for none
     */
    record TermsForm(int version, @Nullable String beginsOn, @Nullable String beginsAt, @Nullable EndKind ends, @Nullable Integer days, @Nullable String endsOn, @Nullable String endsAt,
            @Nullable Integer uses, @Nullable Integer files, @Nullable Long fileMebibytes, @Nullable Long totalMebibytes, @Nullable String name) {
    }

    record PasscodeForm(int version, @Nullable String passcode) {
    }

    record Seen(int version) {
    }

    record FoldersMade(int made) {
    }

    private final LinkList list;
    private final LinkActs acts;
    private final Links links;
    private final RoundFolders folders;
    private final Rounds rounds;
    private final AccountService accounts;
    private final Settings settings;
    private final Clock clock;

    LinkController(LinkList list, LinkActs acts, Links links, RoundFolders folders, Rounds rounds, AccountService accounts, Settings settings, Clock clock) {
        this.list = list;
        this.acts = acts;
        this.links = links;
        this.folders = folders;
        this.rounds = rounds;
        this.accounts = accounts;
        this.settings = settings;
        this.clock = clock;
    }

    /** A page of links; {@code from} is how many come before it. */
    @GetMapping
    LinkList.LinkPage page(@RequestParam(defaultValue = "") String find, @RequestParam(required = false) LinkList.@Nullable Listing listing,
            @RequestParam(required = false) @Nullable Long round, @RequestParam(required = false) LinkList.@Nullable By by,
            @RequestParam(required = false) @Nullable Boolean down, @RequestParam(required = false) @Nullable Integer from) {
        return list.page(new LinkList.Wanted(cut(find), listing, round), by == null ? LinkList.By.END : by, down != null && down, from == null ? 0 : Math.max(from, 0));
    }

    @Needs(Permission.CHANGE)
    @GetMapping("/{id}")
    LinkInFull one(@PathVariable long id, HttpServletRequest request) {
        LinkList.ListedLink link = list.one(id);
        List<LinkAct> done = acts.ofLink(id);
        Map<Long, String> names = accounts.names(done.stream().map(LinkAct::accountId).distinct().toList());
        return new LinkInFull(link, PublicAddress.of(settings, request) + links.path(links.byId(id)), ReadableName.suggestion(link.round()),
                done.stream().map(act -> new LinkEvent(act.id(), act.at(), act.kind(), act.said(), names.getOrDefault(act.accountId(), ""), act.links(), act.undoneAt() != null)).toList());
    }

    /** Pauses, withdraws or renews links, or takes that back; all of them or none. */
    @PostMapping("/acts")
    LinkActs.LinksChanged act(@RequestBody LinkBulk bulk, @AuthenticationPrincipal Account account) {
        List<Long> ids = bulk.kind() == LinkActKind.GIVE_BACK ? list.toGiveBack(ids(bulk)) : ids(bulk);
        Noted.about(Objects.toString(bulk.kind(), ""), ids.size());
        return bulk.kind() == LinkActKind.PASSCODE ? acts.setPasscode(ids, passcode(bulk.passcode()), account.id()) : acts.apply(ids, change(bulk), account.id());
    }

    @PostMapping("/acts/{id}/undo")
    LinkActs.LinksChanged undo(@PathVariable long id) {
        return acts.undo(id);
    }

    /** Gives a link other terms; they hold at once, also where the link was handed out before. */
    @PutMapping("/{id}/terms")
    LinkActs.LinksChanged terms(@PathVariable long id, @RequestBody TermsForm form, @AuthenticationPrincipal Account account) {
        ZoneId zone = ZoneId.of(list.one(id).zone());
        LinkChange.Terms terms = new LinkChange.Terms(window(form, zone), new LinkLimits(form.uses(), form.files(), bytes(form.fileMebibytes()), bytes(form.totalMebibytes())));
        return acts.setTerms(id, form.version(), terms, Typed.readableName(form.name()), account.id());
    }

    /** Sets the passcode of a link; an empty one takes it away. */
    @PutMapping("/{id}/passcode")
    LinkActs.LinksChanged passcode(@PathVariable long id, @RequestBody PasscodeForm form, @AuthenticationPrincipal Account account) {
        return acts.setPasscode(id, form.version(), passcode(form.passcode()), account.id());
    }

    /** Gives a link a new address; the one before does not work any more. */
    @PostMapping("/{id}/address")
    LinkActs.LinksChanged newAddress(@PathVariable long id, @RequestBody Seen seen, @AuthenticationPrincipal Account account) {
        return acts.newAddress(id, seen.version(), account.id());
    }

    /** Makes the folders of a round again that are gone. */
    @PostMapping("/folders/{round}")
    FoldersMade mend(@PathVariable long round) {
        return new FoldersMade(folders.mend(rounds.opened(round).id()));
    }

    private List<Long> ids(LinkBulk bulk) {
        if (bulk.kind() == null) {
            throw Problem.unreadable("unreadable");
        }
        LinkList.Wanted all = bulk.all();
        if (all != null) {
            return list.ids(new LinkList.Wanted(cut(all.find()), all.listing(), all.round()));
        }
        List<Long> ids = bulk.ids();
        if (ids == null || ids.isEmpty() || ids.size() > MOST_AT_ONCE || ids.stream().anyMatch(Objects::isNull)) {
            throw Problem.field("ids", "choose-links", MOST_AT_ONCE);
        }
        return ids;
    }

    private static LinkChange change(LinkBulk bulk) {
        Integer days = bulk.days();
        if (days != null && (days < 1 || days > LinkWindow.LONGEST_LIFE.toDays())) {
            throw Problem.field("days", "link-days", LinkWindow.LONGEST_LIFE.toDays());
        }
        return switch (Objects.requireNonNull(bulk.kind())) {
            case PAUSE -> new LinkChange.Pause(true);
            case GO_ON -> new LinkChange.Pause(false);
            case WITHDRAW -> new LinkChange.Withdraw(true);
            case GIVE_BACK -> new LinkChange.Withdraw(false);
            case RENEW -> new LinkChange.Renew(days);
            case PASSCODE -> throw new IllegalArgumentException("A passcode is no change of terms");
        };
    }

    private static String passcode(@Nullable String typed) {
        String passcode = Typed.text(typed).strip();
        Passcode.fault(passcode).ifPresent(fault -> {
            throw Problem.refused("fields").at(fault);
        });
        return passcode;
    }

    private LinkWindow window(TermsForm form, ZoneId zone) {
        Instant now = clock.instant();
        Instant begins = Typed.begin(form.beginsOn(), form.beginsAt(), zone);
        EndKind ends = form.ends();
        if (ends == null) {
            throw Problem.unreadable("unreadable");
        }
        return switch (ends) {
            case GATHERING -> new LinkWindow(now, begins, null);
            case DAYS -> {
                Integer days = form.days();
                if (days == null || days < 1 || days > LinkWindow.LONGEST_LIFE.toDays()) {
                    throw Problem.field("days", "link-days", LinkWindow.LONGEST_LIFE.toDays());
                }
                yield LinkWindow.ofDays(now, begins, days, zone);
            }
            case UNTIL -> new LinkWindow(now, begins, Typed.end(form.endsOn(), form.endsAt(), zone));
        };
    }

    private static @Nullable Long bytes(@Nullable Long mebibytes) {
        return mebibytes == null ? null : mebibytes > LinkLimits.MOST_BYTES >> 20 || mebibytes < 0 ? -1 : mebibytes << 20;
    }

    private static String cut(@Nullable String find) {
        String words = Typed.text(find);
        return words.length() <= LONGEST_FIND ? words : words.substring(0, LONGEST_FIND);
    }
}
