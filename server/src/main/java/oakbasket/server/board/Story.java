package oakbasket.server.board;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import oakbasket.core.standing.Review;
import oakbasket.server.account.AccountService;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.BasketAct;
import oakbasket.server.basket.BasketActs;
import oakbasket.server.basket.Submission;
import oakbasket.server.held.HeldFile;
import oakbasket.server.held.HeldFiles;
import oakbasket.server.link.LinkAct;
import oakbasket.server.link.LinkActs;
import oakbasket.server.removal.FileRemoval;
import oakbasket.server.removal.RemovedFiles;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Tells what happened in a basket: what was asked, sent, reviewed, and done by coordinators. */
@Service
class Story {

    /** One line of a person's story; {@code by} is the coordinator who did it, null when nobody of the office did. */
    record Event(Instant at, String what, @Nullable String detail, int count, @Nullable String by, boolean undone) {
    }

    private final BasketActs acts;
    private final LinkActs linkActs;
    private final PanelFiles shown;
    private final RemovedFiles removed;
    private final HeldFiles held;
    private final AccountService accounts;

    Story(BasketActs acts, LinkActs linkActs, PanelFiles shown, RemovedFiles removed, HeldFiles held, AccountService accounts) {
        this.removed = removed;
        this.held = held;
        this.acts = acts;
        this.linkActs = linkActs;
        this.shown = shown;
        this.accounts = accounts;
    }

    /**
     * Everything that happened in a basket, in the order of time.
     *
     * @param received its files, claimed ones included
     */
    List<Event> of(Basket basket, List<ReceivedFile> received) {
        List<Event> story = new ArrayList<>();
        add(story, basket.askedAt(), "asked", null);
        add(story, basket.openedAt(), "opened", null);
        List<BasketAct> done = acts.ofBasket(basket.id());
        List<LinkAct> doneToLinks = linkActs.ofBasket(basket.id());
        Map<Long, Submission> sendings = shown.sendings(received);
        Map<Long, String> accountNames = accounts.names(Stream.concat(Stream.concat(done.stream().map(BasketAct::accountId), doneToLinks.stream().map(LinkAct::accountId)), sendings.values().stream().map(Submission::claimDecidedBy).filter(Objects::nonNull))
                .distinct().toList());
        done.forEach(act -> story.add(new Event(act.at(), act.kind(), act.said().isEmpty() ? null : act.said(), 1, accountNames.get(act.accountId()), act.undoneAt() != null)));
        doneToLinks.forEach(act -> story.add(new Event(act.at(), act.kind(), act.said().isEmpty() ? null : act.said(), 1, accountNames.get(act.accountId()), act.undoneAt() != null)));
        if (done.stream().noneMatch(act -> act.kind().equals("excuse"))) {
            add(story, basket.allowance().waivedAt(), "excuse", null);
        }
        received.stream().collect(Collectors.groupingBy(ReceivedFile::submissionId)).forEach((id, sent) -> {
            Submission sending = Known.in(sendings, id);
            boolean claimed = sending.claim() != null;
            story.add(new Event(sent.get(sent.size() - 1).receivedAt(), claimed ? "claimed" : "sent", claimed ? sending.declaredName() : null, sent.size(), null, false));
            if (sending.confirmedAt() != null) {
                story.add(new Event(sending.confirmedAt(), "confirmed", sending.declaredEmail(), 1, null, false));
            }
            if (sending.claimDecidedAt() != null && sending.claimDecidedBy() != null) {
                story.add(new Event(sending.claimDecidedAt(), sending.keptApart() ? "claim-declined" : "claim-accepted", null, sent.size(),
                        accountNames.get(sending.claimDecidedBy()), false));
            }
        });
        received.forEach(file -> {
            if (file.review() != Review.NONE) {
                add(story, file.reviewedAt(), file.review() == Review.ACCEPTED ? "accepted" : "returned",
                        file.storedName() + (file.reviewReason().isEmpty() ? "" : ": " + file.reviewReason()));
            }
        });
        List<FileRemoval> removals = removed.ofBasket(basket.id());
        Map<Long, String> removers = accounts.names(removals.stream().flatMap(one -> Stream.of(one.removedBy(), one.restoredBy())).filter(Objects::nonNull).distinct().toList());
        removals.forEach(one -> {
            story.add(new Event(one.removedAt(), "file-removed", one.name() + ": " + one.reason(), 1, removers.get(one.removedBy()), one.restoredAt() != null));
            if (one.restoredAt() != null && one.restoredBy() != null) {
                story.add(new Event(one.restoredAt(), "file-restored", one.name(), 1, removers.get(one.restoredBy()), false));
            }
        });
        addHeld(story, basket);
        story.sort(Comparator.comparing(Event::at));
        return story;
    }

    private void addHeld(List<Event> story, Basket basket) {
        List<HeldFile> lay = held.ofBasket(basket.id());
        Map<Long, String> deciders = accounts.names(lay.stream().map(HeldFile::settledBy).filter(Objects::nonNull).distinct().toList());
        lay.forEach(file -> {
            add(story, file.receivedAt(), file.found().isEmpty() ? "held" : "malware", file.originalName() + (file.found().isEmpty() ? "" : ": " + file.found()));
            if (file.settledAt() != null && file.outcome() != null) {
                story.add(new Event(file.settledAt(), "held-" + file.outcome().name().toLowerCase(Locale.ROOT), file.originalName(), 1,
                        file.settledBy() == null ? null : deciders.get(file.settledBy()), false));
            }
        });
    }

    private static void add(List<Event> story, @Nullable Instant at, String what, @Nullable String detail) {
        if (at != null) {
            story.add(new Event(at, what, detail, 1, null, false));
        }
    }
}
