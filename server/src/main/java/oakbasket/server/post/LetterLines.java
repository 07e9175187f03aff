package oakbasket.server.post;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.time.format.TextStyle;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.standing.ItemStanding;
import oakbasket.core.standing.Review;
import oakbasket.core.standing.Tile;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.round.Item;
import oakbasket.server.words.Words;

/** The lines of a letter that say what is owed, what came and by when, in one language. */
final class LetterLines {

    private final Words words;
    private final DateTimeFormatter day;
    private final DateTimeFormatter time;

    LetterLines(Words words) {
        this.words = words;
        Locale language = words.language();
        // Numbers in Arabic stand in Latin digits everywhere here.
        Locale numbers = new Locale.Builder().setLocale(language.equals(Locale.ENGLISH) ? Locale.UK : language).setUnicodeLocaleKeyword("nu", "latn").build();
        this.day = language.equals(Locale.ENGLISH) ? DateTimeFormatter.ofPattern("EEEE d MMMM yyyy", Locale.UK) : DateTimeFormatter.ofLocalizedDate(FormatStyle.FULL).localizedBy(numbers);
        this.time = DateTimeFormatter.ofPattern("HH:mm", Locale.ROOT);
    }

    /** The deadline in words, in the round's time and where it differs in the person's. */
    String due(Instant deadline, boolean wholeDay, ZoneId zone, String theirs) {
        var at = deadline.atZone(zone);
        String place = place(at);
        String said = wholeDay ? words.of("letter.due-day", day.format(at), place) : words.of("letter.due", day.format(at), time.format(at), place);
        if (theirs.isEmpty() || ZoneId.of(theirs).getRules().getOffset(deadline).equals(at.getOffset())) {
            return said;
        }
        var there = deadline.atZone(ZoneId.of(theirs));
        return said + words.of("letter.yours", day.format(there), time.format(there));
    }

    /** That there are further files. */
    String moreFiles(int more) {
        return words.of("letter.more-files", more);
    }

    /** Until when something can be taken away, in the office's time and where it differs in the person's. */
    String until(Instant end, ZoneId zone, String theirs) {
        return until("letter.until", end, zone, theirs);
    }

    /** Until when a place is open, likewise. */
    String openUntil(Instant end, ZoneId zone, String theirs) {
        return until("letter.open-until", end, zone, theirs);
    }

    private String until(String which, Instant end, ZoneId zone, String theirs) {
        var at = end.atZone(zone);
        String said = words.of(which, day.format(at), time.format(at), place(at));
        if (theirs.isEmpty() || ZoneId.of(theirs).getRules().getOffset(end).equals(at.getOffset())) {
            return said;
        }
        var there = end.atZone(ZoneId.of(theirs));
        return said + words.of("letter.yours", day.format(there), time.format(there));
    }

    /** Java knows names of zones that hold all year round in English alone. */
    private String place(ZonedDateTime at) {
        return words.language().equals(Locale.ENGLISH) ? at.getZone().getDisplayName(TextStyle.FULL, Locale.UK) : DateTimeFormatter.ofPattern("zzzz", words.language()).format(at);
    }

    String receipt(String code, Instant at, ZoneId zone) {
        return words.of("letter.receipt", code, moment(at, zone));
    }

    String received(Instant at, ZoneId zone) {
        return words.of("letter.received", moment(at, zone));
    }

    String still(List<String> missing) {
        return words.of("letter.still", String.join(", ", missing));
    }

    String calendar(String round, String office) {
        return words.of("letter.calendar", round, office);
    }

    /** What an invitation says of an item. */
    String asked(Item item) {
        String title = LinkAddress.plain(item.spec().title());
        return item.spec().required() ? title : words.of("letter.optional", title);
    }

    /** What the letter says of one item; empty when it is not owed. Optional ones are named only when somebody is first asked, or theirs was returned. */
    Optional<String> owed(LetterKind kind, Item item, Tile tile, List<ReceivedFile> received) {
        ItemStanding standing = tile.standing();
        String title = LinkAddress.plain(item.spec().title());
        if (standing == ItemStanding.RETURNED) {
            String reason = received.stream().filter(file -> file.itemId() == item.id() && file.review() == Review.RETURNED).reduce((one, later) -> later)
                    .map(ReceivedFile::reviewReason).orElse("");
            return Optional.of(words.of("letter.returned", title, LinkAddress.plain(reason)));
        }
        if (!tile.owed() && (standing.satisfied() || standing == ItemStanding.NOT_OWED || kind != LetterKind.INVITATION)) {
            return Optional.empty();
        }
        return Optional.of(standing == ItemStanding.PART && item.spec().required() ? words.of("letter.part", title, tile.files(), item.spec().minFiles()) : asked(item));
    }

    private String moment(Instant at, ZoneId zone) {
        var local = at.atZone(zone);
        return day.format(local) + ", " + time.format(local);
    }
}
