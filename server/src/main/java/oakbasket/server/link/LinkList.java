package oakbasket.server.link;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Clock;
import java.time.Instant;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import oakbasket.core.link.LinkState;
import oakbasket.core.naming.Folded;
import oakbasket.core.round.RoundState;
import oakbasket.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Every link as a working list: found, filtered, sorted and told page by page. */
@Service
public class LinkList {

    /** How many links a page holds. */
    static final int PAGE = 100;

    /** What is listed: links in one state, or those that need somebody. */
    public enum Listing {
        WAITING, LIVE, PAUSED, USED_UP, ENDED, WITHDRAWN,
        /** Live ones that end within the time of warning. */
        ENDS_SOON,
        /** Those of rounds whose folder is gone. */
        NO_FOLDER
    }

    /** By what links can be sorted. */
    enum By { ROUND, PERSON, STATE, END, LAST_USE, USES, FILES, BYTES }

    /**
     * Which links are wanted.
     *
     * @param find part of a name, an address, a round's title or a readable name; empty for all
     * @param listing null for all
     * @param round null for all rounds
     */
    record Wanted(String find, @Nullable Listing listing, @Nullable Long round) {
    }

    /**
     * A link in the list.
     *
     * @param person whose basket it opens; null for an open link
     * @param end when it stops at the latest
     * @param ownEnd whether that was said; else it is open while the round gathers, and ends then at the latest
     * @param removed whether the person was taken out of the round
     * @param folderGone whether the place its files go to is gone
     */
    @RecordBuilder
    @RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
    record ListedLink(long id, long roundId, String round, String zone, @Nullable Long basketId, @Nullable String person, @Nullable String email, boolean removed, LinkState state,
            boolean endsSoon, boolean folderGone, @Nullable Instant beginsAt, Instant end, boolean ownEnd, @Nullable Instant lastUse, int uses, @Nullable Integer useLimit,
            int files, @Nullable Integer fileLimit, long bytes, @Nullable Long totalBytes, @Nullable Long fileBytes, boolean passcode, String name, int version) {
    }

    /** A page of links, how many there are of what is wanted, and how many of each listing whatever is wanted of them. */
    record LinkPage(List<ListedLink> links, int total, Map<Listing, Integer> counts, int all) {
    }

    /**
     * Links of one round that end soon.
     *
     * @param first when the first of them ends
     */
    public record Ending(long roundId, String round, int links, Instant first, List<String> people) {
    }

    private final LinkListTable table;
    private final RoundFolders folders;
    private final Clock clock;

    LinkList(LinkListTable table, RoundFolders folders, Clock clock) {
        this.table = table;
        this.folders = folders;
        this.clock = clock;
    }

    /**
     * A page of links.
     *
     * @param from how many come before it
     */
    LinkPage page(Wanted wanted, By by, boolean down, int from) {
        Set<Long> gone = folders.gone();
        Instant now = clock.instant();
        List<LinkListTable.Entry> found = found(wanted);
        Map<Listing, Integer> counts = new EnumMap<>(Listing.class);
        found.forEach(entry -> listings(entry, gone, now).forEach(listing -> counts.merge(listing, 1, Integer::sum)));
        List<LinkListTable.Entry> listed = in(found, wanted.listing(), gone, now);
        Comparator<LinkListTable.Entry> order = order(by, now);
        return new LinkPage(listed.stream().sorted((down ? order.reversed() : order).thenComparing(LinkListTable.Entry::id)).skip(from).limit(PAGE).map(entry -> told(entry, gone, now)).toList(),
                listed.size(), counts, found.size());
    }

    /** The ids of everything that is wanted. */
    List<Long> ids(Wanted wanted) {
        return in(found(wanted), wanted.listing(), folders.gone(), clock.instant()).stream().map(LinkListTable.Entry::id).toList();
    }

    /** Those of these links that can be given back: whoever was taken out of a round gets the link back by being put back. */
    List<Long> toGiveBack(List<Long> ids) {
        Set<Long> removed = Set.copyOf(table.ofRemoved(ids));
        return ids.stream().filter(id -> !removed.contains(id)).toList();
    }

    /** One link. */
    ListedLink one(long id) {
        return table.byId(id).stream().findFirst().map(entry -> told(entry, folders.gone(), clock.instant())).orElseThrow(() -> Problem.notFound("no-link"));
    }

    /** The links that end within the time of warning, by their rounds. */
    public List<Ending> ending(int mostNames) {
        Instant now = clock.instant();
        return byRound(entry -> endsSoon(entry, now), mostNames);
    }

    /** Those links that end within the time of warning and did not yet, or ended at another time, at an earlier instant. */
    public List<Ending> endingSince(Instant earlier, int mostNames) {
        Instant now = clock.instant();
        return byRound(entry -> endsSoon(entry, now) && (!endsSoon(entry, earlier) || entry.terms().window().setAt().isAfter(earlier)), mostNames);
    }

    private static boolean endsSoon(LinkListTable.Entry entry, Instant now) {
        return LinkState.endsSoon(entry.terms(), entry.roundState(), now);
    }

    private List<Ending> byRound(Predicate<LinkListTable.Entry> wanted, int mostNames) {
        Map<Long, List<LinkListTable.Entry>> byRound = table.all().stream().filter(wanted).collect(Collectors.groupingBy(LinkListTable.Entry::roundId, TreeMap::new, Collectors.toList()));
        return byRound.entrySet().stream().map(round -> new Ending(round.getKey(), round.getValue().get(0).round(), round.getValue().size(),
                round.getValue().stream().map(entry -> entry.terms().window().end()).min(Comparator.naturalOrder()).orElseThrow(),
                round.getValue().stream().map(LinkListTable.Entry::person).filter(java.util.Objects::nonNull).sorted().limit(mostNames).toList())).toList();
    }

    private List<LinkListTable.Entry> found(Wanted wanted) {
        Long round = wanted.round();
        List<LinkListTable.Entry> entries = round == null ? table.all() : table.ofRound(round);
        String words = Folded.of(wanted.find().strip());
        return words.isEmpty() ? entries : entries.stream().filter(entry -> holds(entry, words)).toList();
    }

    private static boolean holds(LinkListTable.Entry entry, String words) {
        return Folded.of(entry.round()).contains(words) || entry.name().contains(words) || entry.person() != null && Folded.of(entry.person()).contains(words)
                || entry.email() != null && Folded.of(entry.email()).contains(words);
    }

    private static List<LinkListTable.Entry> in(List<LinkListTable.Entry> found, @Nullable Listing listing, Set<Long> gone, Instant now) {
        return listing == null ? found : found.stream().filter(entry -> listings(entry, gone, now).contains(listing)).toList();
    }

    private static List<Listing> listings(LinkListTable.Entry entry, Set<Long> gone, Instant now) {
        LinkState state = LinkState.of(entry.terms(), entry.roundState(), now);
        Listing own = Listing.valueOf(state.name());
        boolean soon = LinkState.endsSoon(entry.terms(), entry.roundState(), now);
        boolean noFolder = noFolder(entry, gone, state);
        return soon && noFolder ? List.of(own, Listing.ENDS_SOON, Listing.NO_FOLDER) : soon ? List.of(own, Listing.ENDS_SOON) : noFolder ? List.of(own, Listing.NO_FOLDER) : List.of(own);
    }

    private static boolean noFolder(LinkListTable.Entry entry, Set<Long> gone, LinkState state) {
        return entry.roundState() == RoundState.GATHERING && state != LinkState.WITHDRAWN && gone.contains(entry.roundId());
    }

    private static Comparator<LinkListTable.Entry> order(By by, Instant now) {
        Comparator<Instant> unusedFirst = Comparator.nullsFirst(Comparator.<Instant>naturalOrder());
        Comparator<String> open = Comparator.nullsFirst(String.CASE_INSENSITIVE_ORDER);
        return switch (by) {
            case ROUND -> Comparator.comparing(LinkListTable.Entry::round, String.CASE_INSENSITIVE_ORDER).thenComparing(LinkListTable.Entry::person, open);
            case PERSON -> Comparator.comparing(LinkListTable.Entry::person, open);
            case STATE -> Comparator.comparing(entry -> LinkState.of(entry.terms(), entry.roundState(), now));
            case END -> Comparator.comparing(entry -> entry.terms().window().end());
            case LAST_USE -> Comparator.comparing(LinkListTable.Entry::lastUse, unusedFirst);
            case USES -> Comparator.comparing(entry -> entry.terms().uses());
            case FILES -> Comparator.comparing(LinkListTable.Entry::files);
            case BYTES -> Comparator.comparing(LinkListTable.Entry::bytes);
        };
    }

    private static ListedLink told(LinkListTable.Entry entry, Set<Long> gone, Instant now) {
        LinkState state = LinkState.of(entry.terms(), entry.roundState(), now);
        return LinkListListedLinkBuilder.stagedBuilder().id(entry.id()).roundId(entry.roundId()).round(entry.round()).zone(entry.zone()).basketId(entry.basketId())
                .person(entry.person()).email(entry.email()).removed(entry.removed()).state(state).endsSoon(LinkState.endsSoon(entry.terms(), entry.roundState(), now))
                .folderGone(noFolder(entry, gone, state)).beginsAt(entry.terms().window().beginsAt()).end(entry.terms().window().end())
                .ownEnd(entry.terms().window().endsAt() != null).lastUse(entry.lastUse()).uses(entry.terms().uses()).useLimit(entry.terms().limits().uses())
                .files(entry.files()).fileLimit(entry.terms().limits().files()).bytes(entry.bytes()).totalBytes(entry.terms().limits().totalBytes())
                .fileBytes(entry.terms().limits().fileBytes()).passcode(entry.guarded()).name(entry.name()).version(entry.version()).build();
    }
}
