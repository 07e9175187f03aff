package oakbasket.server.quarantine;

import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import oakbasket.core.identity.Identity;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.held.HeldFile;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Files in quarantine with whose they are. */
@Component
class HeldList {

    /**
     * A file that lies there.
     *
     * @param person whose basket it is for; who the sender says they are where that is not known
     * @param identity how sure it is who sent it
     * @param basketId null where it belongs to nobody yet
     */
    record Held(long id, long roundId, String round, @Nullable Long basketId, String person, Identity identity, String item, String name, long bytes, String sha256, Instant receivedAt, String found,
            boolean waits) {
    }

    private final Submissions submissions;
    private final Baskets baskets;
    private final Rounds rounds;

    HeldList(Submissions submissions, Baskets baskets, Rounds rounds) {
        this.submissions = submissions;
        this.baskets = baskets;
        this.rounds = rounds;
    }

    List<Held> of(List<HeldFile> files) {
        Map<Long, Submission> sendings = submissions.byIds(files.stream().map(HeldFile::submissionId).distinct().toList()).stream().collect(Collectors.toMap(Submission::id, one -> one));
        Map<Long, String> people = baskets.names(sendings.values().stream().map(Submission::basketId).filter(Objects::nonNull).distinct().toList());
        Map<Long, String> titles = rounds.all().stream().collect(Collectors.toMap(Rounds.Head::id, Rounds.Head::title));
        Map<Long, String> items = rounds.itemTitles(files.stream().map(HeldFile::itemId).distinct().toList());
        return files.stream().map(file -> {
            Submission sending = Known.in(sendings, file.submissionId());
            Long basket = sending.basketId();
            String person = basket != null ? people.getOrDefault(basket, "") : sending.declaredName() + " <" + sending.declaredEmail() + ">";
            return new Held(file.id(), file.roundId(), Known.in(titles, file.roundId()), basket, person, sending.identity(), items.getOrDefault(file.itemId(), ""), file.originalName(),
                    file.sizeBytes(), HexFormat.of().formatHex(file.sha256()), file.receivedAt(), file.found(), file.waits());
        }).toList();
    }
}
