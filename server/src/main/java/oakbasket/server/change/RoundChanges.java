package oakbasket.server.change;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.compose.RoundPlan;
import oakbasket.core.compose.RoundSheet;
import oakbasket.core.compose.RoundSheetBuilder;
import oakbasket.core.compose.SheetCheck;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.Remark;
import oakbasket.core.round.RoundState;
import oakbasket.core.standing.RoundEffect;
import oakbasket.server.board.Board;
import oakbasket.server.compose.SheetContexts;
import oakbasket.server.form.Forms;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Drafts;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Known;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Changes a round that gathers already: first told whom it would affect, then applied as a whole. */
@Service
class RoundChanges {

    /**
     * A gathering round as a sheet.
     *
     * @param passcodeSet whether its open link asks for a passcode, which nobody can read any more
     */
    record Changing(int version, RoundSheet sheet, boolean passcodeSet) {
    }

    /**
     * What a change would mean.
     *
     * @param oddities what is allowed but odd
     * @param kinds how many baskets each kind of effect would have
     * @param affected the baskets it would have one on
     * @param plain what else changes
     */
    record ChangePreview(List<Fault> oddities, Map<RoundEffect.Kind, Long> kinds, List<Board.Affected> affected, List<Remark> plain) {
    }

    private final Rounds rounds;
    private final Forms forms;
    private final SheetContexts contexts;
    private final Board board;
    private final ReceivedFiles files;
    private final Links links;
    private final Transactions transactions;
    private final LiveHub live;

    RoundChanges(Rounds rounds, Forms forms, SheetContexts contexts, Board board, ReceivedFiles files, Links links, Transactions transactions, LiveHub live) {
        this.links = links;
        this.rounds = rounds;
        this.forms = forms;
        this.contexts = contexts;
        this.board = board;
        this.files = files;
        this.transactions = transactions;
        this.live = live;
    }

    /** A gathering round as a sheet whose items carry their ids. */
    Changing sheet(long id) {
        Round round = gathering(id);
        RoundSheet stored = rounds.sheet(id);
        List<RoundSheet.SheetItem> now = rounds.items(id).stream().map(item -> new RoundSheet.SheetItem(item.id(), item.spec().title(), item.spec().help(), item.spec().required(),
                item.spec().minFiles(), item.spec().maxFiles(), item.spec().kinds().stream().map(Enum::name).sorted().toList(), (int) (item.spec().maxBytes() >> 20),
                item.owedBy(), item.formId(), item.formId() == null ? "" : forms.name(item.formId()), item.spec().arrival().archives(), item.spec().arrival().unchecked())).toList();
        Optional<Link> open = links.openOf(id);
        ZoneId zone = round.zone();
        Instant closes = round.closesAt();
        LocalDateTime closing = closes == null ? null : LocalDateTime.ofInstant(closes, zone);
        boolean wholeDay = closing != null && stored.closingTime().isEmpty();
        return new Changing(round.version(), RoundSheetBuilder.builder().title(round.title()).note(round.note()).items(now)
                .deadlineDate(round.deadline().date().toString()).deadlineTime(text(round.deadline().time())).zone(zone.getId())
                .warningHours((int) round.warning().toHours()).graceHours((int) round.grace().toHours())
                .closingDate(closing == null ? "" : closing.toLocalDate().toString()).closingTime(closing == null || wholeDay ? "" : closing.toLocalTime().toString())
                .keepUntil(text(round.keepUntil())).calendarId(round.calendarId()).folderPattern(round.folderPattern()).namePattern(round.namePattern())
                .takesActive(round.takesActive()).letters(stored.letters()).openLink(open.isPresent()).build(), open.filter(link -> link.passcodeHash() != null).isPresent());
    }

    private static String text(@Nullable Object dateOrTime) {
        return dateOrTime == null ? "" : dateOrTime.toString();
    }

    /** Says what a change would mean; stores nothing. */
    ChangePreview preview(long id, RoundSheet sheet, boolean dropPasscode) {
        Round before = gathering(id);
        RoundPlan plan = plan(id, sheet);
        List<Item> itemsBefore = rounds.items(id);
        List<Board.Affected> affected = board.compare(before, itemsBefore, before.with(plan), Drafts.itemsOf(plan));
        Map<RoundEffect.Kind, Long> kinds = affected.stream().flatMap(one -> one.effect().kinds().stream()).collect(Collectors.groupingBy(kind -> kind, Collectors.counting()));
        return new ChangePreview(SheetCheck.check(sheet, contexts.changing()).oddities(), kinds, affected, plain(before, plan, dropPasscode));
    }

    /**
     * Applies a change.
     *
     * @param dropPasscode whether the open link asks for no passcode any more; an empty one in the sheet leaves it as it is
     * @throws Problem with status 409 when the round changed since {@code version}
     */
    Round apply(long id, int version, RoundSheet sheet, boolean dropPasscode) {
        gathering(id);
        RoundPlan plan = plan(id, sheet);
        transactions.durably(() -> {
            rounds.alter(id, version, plan, kept(id, sheet));
            wayIn(id, plan, dropPasscode);
        });
        live.publish(new LiveEvent("round", id, null));
        return rounds.opened(id);
    }

    private RoundPlan plan(long id, RoundSheet sheet) {
        SheetCheck.Outcome outcome = SheetCheck.check(sheet, contexts.changing());
        List<Fault> errors = new ArrayList<>(outcome.errors());
        Map<Long, Item> known = rounds.items(id).stream().collect(Collectors.toMap(Item::id, item -> item));
        Set<Long> kept = new HashSet<>();
        for (int i = 0; i < sheet.items().size(); i++) {
            Long item = sheet.items().get(i).id();
            if (item != null && (!known.containsKey(item) || !kept.add(item))) {
                errors.add(Fault.of("items[" + i + "].title", "item-gone"));
            }
        }
        Map<Long, Integer> came = files.countsOf(known.keySet().stream().filter(item -> !kept.contains(item)).toList());
        came.forEach((item, count) -> errors.add(Fault.of("items", "item-has-files", Known.in(known, item).spec().title(), count)));
        if (!errors.isEmpty()) {
            throw Problem.fields(errors);
        }
        return outcome.plan().orElseThrow();
    }

    private void wayIn(long id, RoundPlan plan, boolean dropPasscode) {
        if (!plan.openLink()) {
            links.withdrawOpen(id);
            return;
        }
        links.reopenOpen(id);
        if (dropPasscode || !plan.passcode().isEmpty()) {
            links.setPasscode(id, dropPasscode ? "" : plan.passcode());
        }
    }

    /** The sheet to be kept: as changed, with the people as they were and without the passcode. */
    private RoundSheet kept(long id, RoundSheet sheet) {
        RoundSheet stored = rounds.sheet(id);
        return RoundSheetBuilder.builder(sheet).people(stored.people()).peopleText("").groups(stored.groups()).passcode("").build();
    }

    private List<Remark> plain(Round before, RoundPlan plan, boolean dropPasscode) {
        List<Remark> plain = new ArrayList<>();
        if (!before.folderPattern().equals(plan.folderPattern()) || !before.namePattern().equals(plan.namePattern())
                || !before.title().equals(plan.title()) && (before.folderPattern() + before.namePattern()).contains("{round}")) {
            plain.add(Remark.of("change-places"));
        }
        Instant closes = plan.closesAt();
        if (closes != null && !closes.equals(before.closesAt())) {
            plain.add(Remark.of("change-closing"));
        } else if (closes == null && before.closesAt() != null) {
            plain.add(Remark.of("change-no-closing"));
        }
        if (!plan.letters().reminders().equals(before.letters().reminders())) {
            plain.add(Remark.of("change-reminders"));
        }
        Optional<Link> open = links.openOf(before.id());
        if (open.isPresent() != plan.openLink()) {
            plain.add(Remark.of(plan.openLink() ? "change-open-link" : "change-no-open-link"));
        }
        if (plan.openLink() && dropPasscode) {
            plain.add(Remark.of("change-no-passcode"));
        } else if (plan.openLink() && !plan.passcode().isEmpty()) {
            plain.add(Remark.of("change-passcode"));
        }
        return plain;
    }

    private Round gathering(long id) {
        Round round = rounds.opened(id);
        if (round.state() != RoundState.GATHERING) {
            throw Problem.conflict("round-not-gathering");
        }
        return round;
    }
}
