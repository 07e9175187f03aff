package oakbasket.server.postoffice;

import jakarta.mail.MessagingException;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.naming.SafeName;
import oakbasket.core.team.Permission;
import oakbasket.server.clock.MovableClock;
import oakbasket.server.inward.Collecting;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.post.Postman;
import oakbasket.server.post.ReminderRounds;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The pretend post office; there is none but in the demo. */
@RestController
@Needs(Permission.SET_UP)
class PostOfficeController {

    private static final int MOST_SHOWN = 200;
    private static final int MOST_HOURS = 24 * 60;
    private static final int MOST_BYTES = 25 << 20;
    /** A quarter of an hour: reminders are planned for such moments. */
    private static final int STEP_SECONDS = 900;
    private static final int LONGEST_TEXT = 2_000;

    /** A letter that somebody got. @param reports where reports about it go */
    record PretendLetter(long id, String to, String subject, Instant at, String text, String html, List<String> attachments, String reports) {
    }

    /** @param moods what is done with letters to each address that somebody got one at, or that was set */
    record PretendView(Instant now, Map<String, Mood> moods, List<PretendLetter> letters) {
    }

    record TypedMood(@Nullable String address, @Nullable Mood mood) {
    }

    record Forward(int hours) {
    }

    private final ObjectProvider<PretendPostOffice> office;
    private final ObjectProvider<MovableClock> movable;
    private final ReminderRounds reminders;
    private final Postman postman;
    private final Collecting collecting;
    private final LiveHub live;
    private final Words words;
    private final Clock clock;

    PostOfficeController(ObjectProvider<PretendPostOffice> office, ObjectProvider<MovableClock> movable, ReminderRounds reminders, Postman postman, Collecting collecting, LiveHub live, Words words, Clock clock) {
        this.office = office;
        this.movable = movable;
        this.reminders = reminders;
        this.postman = postman;
        this.collecting = collecting;
        this.live = live;
        this.words = words;
        this.clock = clock;
    }

    @Needs(Permission.SET_UP)
    @GetMapping("/api/post-office")
    PretendView view() {
        PretendPostOffice here = here();
        Map<String, Mood> moods = new TreeMap<>(here.moods());
        here.got().forEach(one -> moods.putIfAbsent(one.to(), Mood.TAKE));
        return new PretendView(clock.instant(), moods, here.got().stream().limit(MOST_SHOWN)
                .map(one -> new PretendLetter(one.id(), one.to(), one.subject(), one.at(), one.text(), one.html(), one.attachments(), one.returnPath())).toList());
    }

    /** Sets what is done with letters to an address. */
    @PutMapping("/api/post-office/moods")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void mood(@RequestBody TypedMood typed) {
        try {
            here().moods().put(MailAddress.parse(typed.address() == null ? "" : typed.address()).text().toLowerCase(Locale.ROOT), typed.mood() == null ? Mood.TAKE : typed.mood());
        } catch (FaultyValue wrong) {
            throw Problem.fields(List.of(wrong.at("address")));
        }
    }

    /**
     * Answers a letter as the person who got it; the body is what is attached.
     *
     * @param name what is attached is called; empty for nothing
     * @param automatic whether their program answers that they are away
     */
    @PostMapping("/api/post-office/letters/{id}/answer")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void answerAs(@PathVariable long id, @RequestParam(defaultValue = "") String text, @RequestParam(defaultValue = "") String name, @RequestParam(defaultValue = "false") boolean automatic,
            HttpServletRequest request) throws IOException, MessagingException {
        if (text.length() > LONGEST_TEXT) {
            throw Problem.field("text", "longest", LONGEST_TEXT);
        }
        byte[] attached = request.getInputStream().readNBytes(MOST_BYTES + 1);
        if (attached.length > MOST_BYTES) {
            throw Problem.of(Problem.Kind.TOO_LARGE, "body-too-large", MOST_BYTES);
        }
        PretendPostOffice.Got letter = letter(id);
        here().post(here().writer().answer(letter, automatic ? words.of("post-office.away") : text, name.isBlank() ? "" : SafeName.of(name), attached, automatic));
        collecting.look();
    }

    /** Sends a letter back as one that cannot be delivered. */
    @PostMapping("/api/post-office/letters/{id}/bounce")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void bounce(@PathVariable long id) throws MessagingException {
        here().post(here().writer().bounce(letter(id)));
        collecting.look();
    }

    /** Moves the clock of the demo forward, by quarters of an hour, so that everything that falls due in between goes at its time. */
    @PostMapping("/api/post-office/clock")
    PretendView forward(@RequestBody Forward forward) {
        here();
        if (forward.hours() < 1 || forward.hours() > MOST_HOURS) {
            throw Problem.field("hours", "between", 1, MOST_HOURS);
        }
        MovableClock moved = movable.getIfAvailable();
        Instant until = clock.instant().plus(Duration.ofHours(forward.hours()));
        while (moved != null && clock.instant().isBefore(until)) {
            Instant now = clock.instant();
            Instant quarter = Instant.ofEpochSecond((now.getEpochSecond() / STEP_SECONDS + 1) * STEP_SECONDS);
            moved.move(Duration.between(now, quarter.isBefore(until) ? quarter : until));
            reminders.look();
            postman.deliver();
        }
        collecting.look();
        live.publish(new LiveEvent(LiveEvent.LETTER, 0, null));
        return view();
    }

    private PretendPostOffice here() {
        PretendPostOffice here = office.getIfAvailable();
        if (here == null) {
            throw Problem.notFound("no-post-office");
        }
        return here;
    }

    private PretendPostOffice.Got letter(long id) {
        return here().got(id).orElseThrow(() -> Problem.notFound("no-letter"));
    }
}
