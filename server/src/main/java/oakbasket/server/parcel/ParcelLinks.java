package oakbasket.server.parcel;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import oakbasket.core.parcel.PickUpAdmission;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Hash;
import oakbasket.server.security.Limits;
import oakbasket.server.security.PasscodeTickets;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;

/** Makes the links of parcels and admits who comes through them. A token is kept as that of a request link: its hash to find it, and itself sealed to show it again. */
@Service
public class ParcelLinks {

    /** A link that somebody was admitted through, and its parcel. */
    public record Admitted(ParcelLink link, Parcel parcel) {
    }

    private static final int LONGEST_TOKEN = 100;

    private final ParcelLinkTable table;
    private final ParcelTable parcels;
    private final SecretKeys keys;
    private final PasscodeTickets tickets;
    private final Limits limits;
    private final Transactions transactions;
    private final ApplicationEventPublisher events;
    private final LiveHub live;
    private final Clock clock;

    ParcelLinks(ParcelLinkTable table, ParcelTable parcels, SecretKeys keys, PasscodeTickets tickets, Limits limits, Transactions transactions, ApplicationEventPublisher events, LiveHub live, Clock clock) {
        this.table = table;
        this.parcels = parcels;
        this.keys = keys;
        this.tickets = tickets;
        this.limits = limits;
        this.transactions = transactions;
        this.events = events;
        this.live = live;
        this.clock = clock;
    }

    /** Makes the link of a person, or of anybody who holds it. Runs in the caller's transaction. */
    ParcelLink make(long parcel, @Nullable Long contact, Instant now) {
        String token = keys.token();
        return byId(table.insert(parcel, contact, Hash.of(token), keys.seal(token.getBytes(StandardCharsets.US_ASCII)), now));
    }

    /** Gives a link a new address; the one before does not work any more. Runs in the caller's transaction. */
    void readdress(long id) {
        String token = keys.token();
        table.readdress(id, Hash.of(token), keys.seal(token.getBytes(StandardCharsets.US_ASCII)));
    }

    /** A link known to exist. */
    public ParcelLink byId(long id) {
        return table.byId(id).orElseThrow(() -> Problem.notFound("no-link"));
    }

    /** Links by id; ids that do not exist are left out. */
    public List<ParcelLink> byIds(Collection<Long> ids) {
        return table.byIds(ids);
    }

    /** The links of some parcels, withdrawn ones too. */
    public List<ParcelLink> ofParcels(Collection<Long> ids) {
        return table.ofParcels(ids);
    }

    /** Whether anything was ever handed out to a contact. */
    public boolean any(long contact) {
        return table.any(contact);
    }

    /** The path of the pick-up page behind a link. */
    public String path(ParcelLink link, String name) {
        return "/p/" + (name.isEmpty() ? "" : name + "/") + token(link);
    }

    /** The path that takes everything away in one step: the one file, or all of them as a ZIP. */
    public String directPath(ParcelLink link) {
        return "/d/" + token(link) + "/all";
    }

    private String token(ParcelLink link) {
        return new String(keys.open(link.tokenSealed()), StandardCharsets.US_ASCII);
    }

    /**
     * Admits whoever holds this token.
     *
     * @param ticket what {@link #unlock} gave; null when none
     * @param caller the address of the caller, to slow down guessing
     * @throws Problem saying plainly why not; unknown and withdrawn links cannot be told apart
     */
    public Admitted admit(@Nullable String token, @Nullable String ticket, String caller) {
        Optional<ParcelLink> found = token == null || token.length() > LONGEST_TOKEN ? Optional.empty() : table.byTokenHash(Hash.of(token));
        Parcel parcel = found.flatMap(link -> parcels.byId(link.parcelId())).orElse(null);
        ParcelLink link = found.orElse(null);
        if (link == null || parcel == null) {
            limits.count(Limits.Kind.UNKNOWN_LINK, caller);
            throw refusal(PickUpAdmission.UNKNOWN);
        }
        PickUpAdmission admission = PickUpAdmission.decide(parcel.terms(), link.withdrawnAt() != null, tickets.admits(ticket, PasscodeTickets.Of.PARCEL, link.id(), parcel.passcodeHash()), clock.instant());
        if (admission == PickUpAdmission.UNKNOWN) {
            limits.count(Limits.Kind.UNKNOWN_LINK, caller);
        }
        if (admission != PickUpAdmission.ADMITTED) {
            throw refusal(admission);
        }
        return new Admitted(link, parcel);
    }

    /**
     * Whether what is being taken away through a link may go on: one that was begun before its end may, one that was stopped, withdrawn or given a new address may not.
     *
     * @param begun the link as it was when the taking away began
     */
    public boolean mayGoOn(ParcelLink begun) {
        return table.byId(begun.id()).filter(link -> link.withdrawnAt() == null && Arrays.equals(link.tokenSealed(), begun.tokenSealed())).flatMap(link -> parcels.byId(link.parcelId())).filter(parcel -> parcel.stoppedAt() == null && parcel.purgedAt() == null).isPresent();
    }

    /**
     * Checks a passcode and gives a ticket that stands for it for some hours.
     *
     * @throws Problem when the link does not admit, the passcode is wrong, or too many were wrong
     */
    public String unlock(@Nullable String token, String passcode, String caller) {
        try {
            admit(token, null, caller);
            return "";
        } catch (Problem refused) {
            if (!refused.code().equals("link-passcode-needed")) {
                throw refused;
            }
        }
        ParcelLink link = table.byTokenHash(Hash.of(String.valueOf(token))).orElseThrow();
        return tickets.unlock(PasscodeTickets.Of.PARCEL, link.id(), String.valueOf(parcels.byId(link.parcelId()).orElseThrow().passcodeHash()), passcode, caller);
    }

    /** Notes that the page behind a link was seen. */
    public void seen(ParcelLink link) {
        if (link.seenAt() == null && transactions.quickly(() -> table.seen(link.id(), clock.instant())) == 1) {
            live.publish(LiveEvent.PARCELS);
        }
        events.publishEvent(new ParcelSeen(link.id()));
    }

    private static Problem refusal(PickUpAdmission admission) {
        return switch (admission) {
            case UNKNOWN -> Problem.notFound("link-unknown");
            case NOT_YET_BEGUN -> Problem.of(Problem.Kind.FORBIDDEN, "link-not-begun");
            case ENDED -> Problem.of(Problem.Kind.GONE, "parcel-ended");
            case PASSCODE_NEEDED -> Problem.of(Problem.Kind.SIGN_IN_NEEDED, "link-passcode-needed");
            case ADMITTED -> throw new IllegalStateException("Admitted is no refusal");
        };
    }
}
