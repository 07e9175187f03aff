package oakbasket.server.opening;

import java.util.List;
import oakbasket.core.compose.RoundPlan;
import oakbasket.core.compose.RoundSheet;
import oakbasket.core.round.RoundState;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.PeopleAsked;
import oakbasket.server.contact.Contacts;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Drafts;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Transactions;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;

/** Opens drafts. */
@Service
public class Opening {

    /**
     * What opening a draft will do.
     *
     * @param people how many get a basket and a personal link
     * @param letters how many of them are written to; 0 where the coordinator hands the links over
     * @param reminders how many reminders are planned for each who still owes
     * @param openLink whether an open link is made too
     */
    record OpeningPreview(int people, int letters, int reminders, boolean openLink) {
    }

    private final Rounds rounds;
    private final Drafts drafts;
    private final Baskets baskets;
    private final Contacts contacts;
    private final ApplicationEventPublisher events;
    private final Transactions transactions;
    private final LiveHub live;

    Opening(Rounds rounds, Drafts drafts, Baskets baskets, Contacts contacts, ApplicationEventPublisher events, Transactions transactions, LiveHub live) {
        this.rounds = rounds;
        this.drafts = drafts;
        this.baskets = baskets;
        this.contacts = contacts;
        this.events = events;
        this.transactions = transactions;
        this.live = live;
    }

    /**
     * Says what opening a draft would do; does nothing.
     *
     * @throws Problem with status 422 naming every field that keeps it from being opened
     */
    OpeningPreview preview(long id) {
        rounds.head(id).state().after(RoundState.Change.OPEN);
        RoundPlan plan = drafts.plan(rounds.sheet(id));
        int people = contacts.together(plan.people(), plan.groups());
        return new OpeningPreview(people, plan.letters().invite() ? people : 0, plan.letters().reminders().steps().size(), plan.openLink());
    }

    /**
     * Opens a draft: from now on its links admit senders.
     *
     * @throws Problem with status 422 naming every field that keeps it from being opened, or 409 when it changed since {@code version}
     */
    public Round open(long id, int version) {
        rounds.head(id).state().after(RoundState.Change.OPEN);
        RoundSheet sheet = rounds.sheet(id);
        RoundPlan plan = drafts.plan(sheet);
        transactions.durably(() -> open(id, version, sheet, plan));
        live.publish(new LiveEvent("round", id, null));
        return rounds.opened(id);
    }

    /** The same within the caller's transaction. @return the baskets of those who are asked */
    public List<Long> open(long id, int version, RoundSheet sheet, RoundPlan plan) {
        rounds.open(id, version, plan, sheet.withoutPasscode());
        List<Long> asked = baskets.ask(id, plan.people(), plan.groups(), plan.openLink(), plan.passcode());
        if (plan.letters().invite()) {
            events.publishEvent(new PeopleAsked(asked, rounds.askedBy(id)));
        }
        return asked;
    }
}
