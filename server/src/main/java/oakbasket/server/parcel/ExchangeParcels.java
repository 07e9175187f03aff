package oakbasket.server.parcel;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import oakbasket.core.exchange.ExchangeAnswer;
import oakbasket.core.exchange.ExchangeCheck;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/**
 * What lies in an exchange for its person. It is kept as a parcel that is never handed out as one, so that bytes come in, are looked at for malware, are taken away and are counted by
 * the same code; its files may be taken out and put back at any time.
 */
@Service
public class ExchangeParcels {

    /** The files of an exchange that was just made, and the link by which it is counted what is taken away. Nobody learns the address of that link. */
    public record Made(long parcel, long way) {
    }

    /** A file that lies there. @param taken how often it was taken away whole */
    public record Lying(ParcelFile file, int taken, @Nullable Instant lastAt) {
    }

    /** Something that was done there. @param accountId null when its person did it, or the program */
    public record Done(long id, Instant at, @Nullable Long accountId, String what, String said) {
    }

    private final ParcelTable parcels;
    private final ParcelFileTable files;
    private final ParcelActTable acts;
    private final ParcelLinks links;
    private final ParcelFiles contents;
    private final PickUps pickUps;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;

    ExchangeParcels(ParcelTable parcels, ParcelFileTable files, ParcelActTable acts, ParcelLinks links, ParcelFiles contents, PickUps pickUps, Transactions transactions, LiveHub live, Clock clock) {
        this.parcels = parcels;
        this.files = files;
        this.acts = acts;
        this.links = links;
        this.contents = contents;
        this.pickUps = pickUps;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
    }

    /** Makes the place where files lie. Runs in the caller's transaction. */
    public Made make(long account, long round, String title, long contact) {
        Instant now = clock.instant();
        long parcel = parcels.insertOfExchange(account, round, title, (int) ExchangeCheck.KEPT_AFTER_END.toDays(), now);
        acts.insert(parcel, ParcelAct.Kind.MADE, "", account, now);
        return new Made(parcel, links.make(parcel, contact, now).id());
    }

    /** The parcel behind an exchange. */
    public Parcel parcel(long exchange) {
        return parcels.byId(exchange).orElseThrow();
    }

    /** The link by which it is counted what is taken away. */
    public ParcelLink way(long way) {
        return links.byId(way);
    }

    /** What lies there, in its order, also what is still coming or was refused. */
    public List<Lying> lying(long exchange, long way) {
        Map<Long, PickUps.Times> times = pickUps.times(List.of(way)).stream().collect(Collectors.toMap(PickUps.Times::fileId, one -> one));
        return files.ofParcel(exchange).stream().map(file -> {
            PickUps.Times taken = times.get(file.id());
            return taken == null ? new Lying(file, 0, null) : new Lying(file, taken.times(), taken.lastAt());
        }).toList();
    }

    /** How many files lie in some exchanges, by the exchange. */
    public Map<Long, Integer> counts(List<Long> exchanges) {
        return files.sums(exchanges).values().stream().collect(Collectors.toMap(ParcelFileTable.Sum::parcelId, ParcelFileTable.Sum::files));
    }

    /** What was done there, the newest first. */
    public List<Done> story(long exchange) {
        return acts.ofParcel(exchange).stream().map(act -> new Done(act.id(), act.at(), act.accountId(), act.kind().name(), act.said())).toList();
    }

    /** Notes that its terms changed. Runs in the caller's transaction. */
    public void noteRights(long exchange, long account) {
        acts.insert(exchange, ParcelAct.Kind.RIGHTS, "", account, clock.instant());
    }

    /** Notes that its person is written to. Runs in the caller's transaction. */
    public void noteWritten(long exchange, long account) {
        acts.insert(exchange, ParcelAct.Kind.WRITTEN, "", account, clock.instant());
    }

    /** Notes what its person said to the invitation. Runs in the caller's transaction. */
    public void noteAnswer(long exchange, ExchangeAnswer answer) {
        acts.insert(exchange, answer == ExchangeAnswer.ACCEPTED ? ParcelAct.Kind.ACCEPTED : ParcelAct.Kind.DECLINED, "", null, clock.instant());
    }

    /** Destroys the files of an exchange that is over. That they lay there, and who took them away, stays on record. */
    public void purge(long exchange) {
        Instant now = clock.instant();
        List<ParcelFile> all = new ArrayList<>(files.ofParcel(exchange));
        all.addAll(files.takenBack(exchange));
        transactions.durably(() -> {
            for (ParcelFile file : all) {
                files.takeBack(file.id(), now);
                files.contentGone(file.id());
            }
            acts.insert(exchange, ParcelAct.Kind.PURGED, "", null, now);
        });
        all.forEach(contents::destroy);
        live.publish(LiveEvent.PARCELS);
    }
}
