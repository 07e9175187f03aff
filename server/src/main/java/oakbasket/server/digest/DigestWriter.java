package oakbasket.server.digest;

import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import oakbasket.server.Settings;
import oakbasket.server.audit.AuditTrail;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.brand.Brand;
import oakbasket.server.parcel.TakenAway;
import oakbasket.server.post.LinkAddress;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Known;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Component;

/** Writes what has come: by round, each sending with its person, its time and the way to its files. */
@Component
class DigestWriter {

    private static final DateTimeFormatter AT = DateTimeFormatter.ofPattern("EEE d MMM, HH:mm", Locale.UK);
    private static final int MOST_NAMES = 5;
    private static final int MOST_SENDINGS = 200;

    private final Rounds rounds;
    private final Baskets baskets;
    private final Submissions submissions;
    private final LinkAddress links;
    private final Words words;
    private final Settings settings;
    private final Brand brand;
    private final AuditTrail trail;

    DigestWriter(Rounds rounds, Baskets baskets, Submissions submissions, LinkAddress links, Words words, Settings settings, Brand brand, AuditTrail trail) {
        this.trail = trail;
        this.brand = brand;
        this.rounds = rounds;
        this.baskets = baskets;
        this.submissions = submissions;
        this.links = links;
        this.words = words;
        this.settings = settings;
    }

    /** What came with one sending for one basket. */
    private record Sent(long submission, long basket) {
    }

    /** The text about these files, which came after one another, and about what was taken away. */
    String body(List<ReceivedFile> came, List<TakenAway.Taking> took) {
        Map<Long, String> people = baskets.names(came.stream().map(ReceivedFile::basketId).distinct().toList());
        Map<Long, Submission> sendings = submissions.byIds(came.stream().map(ReceivedFile::submissionId).distinct().toList()).stream().collect(Collectors.toMap(Submission::id, one -> one));
        Map<Long, Map<Sent, List<ReceivedFile>>> byRound = new LinkedHashMap<>();
        came.forEach(file -> byRound.computeIfAbsent(file.roundId(), id -> new LinkedHashMap<>()).computeIfAbsent(new Sent(file.submissionId(), file.basketId()), sent -> new ArrayList<>()).add(file));
        StringBuilder text = new StringBuilder();
        int told = 0;
        int left = 0;
        for (Map.Entry<Long, Map<Sent, List<ReceivedFile>>> round : byRound.entrySet()) {
            text.append(LinkAddress.plain(rounds.head(round.getKey()).title())).append('\n');
            for (Map.Entry<Sent, List<ReceivedFile>> sent : round.getValue().entrySet()) {
                if (told++ < MOST_SENDINGS) {
                    sending(text, round.getKey(), sent.getKey(), sent.getValue(), people, Known.in(sendings, sent.getKey().submission()));
                } else {
                    left += sent.getValue().size();
                }
            }
            text.append('\n');
        }
        if (!took.isEmpty()) {
            text.append(words.of("digest.taken")).append('\n');
            took.forEach(one -> text.append(words.of("digest.taking", one.person().isEmpty() ? words.of("digest.anybody") : LinkAddress.plain(one.person()), AT.format(one.at().atZone(settings.zone())), one.files(),
                    LinkAddress.plain(one.parcel()), links.base() + one.path())).append('\n'));
        }
        AuditTrail.End end = trail.end();
        return words.of("digest.body", brand.name(), text.toString().strip(), left == 0 ? "" : words.of("digest.left", left), links.base(), end.entries(), end.hash());
    }

    private void sending(StringBuilder text, long round, Sent sent, List<ReceivedFile> files, Map<Long, String> people, Submission sending) {
        String names = files.stream().limit(MOST_NAMES).map(ReceivedFile::storedName).collect(Collectors.joining(", "));
        String more = files.size() > MOST_NAMES ? words.of("digest.more", files.size() - MOST_NAMES) : "";
        String at = AT.format(files.get(files.size() - 1).receivedAt().atZone(settings.zone()));
        text.append(words.of("digest.sending", LinkAddress.plain(people.getOrDefault(sent.basket(), "")), at, words.of(sending.identityKey()), names, more,
                sending.keptApart() ? words.of("digest.claimed") : "", links.base() + "/rounds/" + round + "?basket=" + sent.basket())).append('\n');
    }
}
