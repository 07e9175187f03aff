package oakbasket.server.exchange;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import oakbasket.core.exchange.ExchangeTerms;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.link.LinkWindow;
import oakbasket.core.team.Permission;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.mail.MailReach;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import oakbasket.server.web.Typed;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Places in which papers go in both directions, for the desk. Their files are put in like those of parcels, under the same number. */
@RestController
@Needs(Permission.HAND_OUT)
class ExchangeController {

    private static final int LONGEST_FIND = 200;

    /** Somebody whose place it is. */
    record ExchangePerson(@Nullable String name, @Nullable String email) {
    }

    /**
     * A new exchange as a coordinator types it, in the office's zone.
     *
     * @param item what its person puts in, in the office's words; empty for the usual ones
     * @param days how long it works; null where {@code endsOn} says until when
     * @param beginsOn a date; empty means at once
     * @param beginsAt a time of that day; empty means its first moment
     * @param endsOn a date
     * @param endsAt a time of that day; empty means its end
     * @param passcode empty for none
     * @param name the readable part of its address; empty for none
     */
    record ExchangeSheet(@Nullable String title, @Nullable String message, @Nullable ExchangePerson person, @Nullable String item, boolean putIn, boolean see, boolean takeAway, boolean asksFirst,
            @Nullable Integer days, @Nullable String beginsOn, @Nullable String beginsAt, @Nullable String endsOn, @Nullable String endsAt, @Nullable String passcode, @Nullable String name,
            boolean byLetter) {
    }

    record ExchangeMade(long id) {
    }

    /** The exchange of a basket. @param id null where papers go in one direction only */
    record ExchangeOfBasket(@Nullable Long id) {
    }

    /** What its person may do there. */
    record RightsForm(int version, boolean putIn, boolean see, boolean takeAway, boolean asksFirst) {
    }

    /** @param file one that lies there @param received the one it answers */
    record AnswerForm(long file, long received) {
    }

    private final Exchanges exchanges;
    private final ExchangeList list;
    private final Settings settings;
    private final MailReach reach;
    private final Clock clock;

    ExchangeController(Exchanges exchanges, ExchangeList list, Settings settings, MailReach reach, Clock clock) {
        this.reach = reach;
        this.exchanges = exchanges;
        this.list = list;
        this.settings = settings;
        this.clock = clock;
    }

    /** Exchanges, the newest first; {@code before} is the last one seen. */
    @GetMapping("/api/exchanges")
    ExchangeList.ExchangePage exchanges(@RequestParam(defaultValue = "") String find, @RequestParam(required = false) @Nullable Long before) {
        return list.page(find.substring(0, Math.min(find.length(), LONGEST_FIND)), before);
    }

    /** Makes a place of its own for somebody. */
    @PostMapping("/api/exchanges")
    @ResponseStatus(HttpStatus.CREATED)
    ExchangeMade makeExchange(@RequestBody ExchangeSheet typed, @AuthenticationPrincipal Account account) {
        return new ExchangeMade(exchanges.make(sheet(typed), account.id()));
    }

    /** Whether papers go in both directions in a basket. */
    @GetMapping("/api/exchanges/of-basket/{basket}")
    ExchangeOfBasket exchangeOf(@PathVariable long basket) {
        return new ExchangeOfBasket(exchanges.ofBasket(basket).map(Exchange::id).orElse(null));
    }

    /** Has papers go in both directions in the basket of somebody who is asked in a round: that person may also see and take away what is put there for them. */
    @PostMapping("/api/exchanges/of-basket/{basket}")
    ExchangeMade makeExchangeOn(@PathVariable long basket, @AuthenticationPrincipal Account account) {
        return new ExchangeMade(exchanges.makeOn(basket, new ExchangeTerms(true, true, true, false), account.id()));
    }

    @GetMapping("/api/exchanges/{id}")
    ExchangeList.ExchangeInFull exchange(@PathVariable long id) {
        return list.inFull(exchanges.byId(id));
    }

    /** Changes what its person may do there; it holds at once. */
    @PutMapping("/api/exchanges/{id}")
    ExchangeList.ExchangeInFull changeExchange(@PathVariable long id, @RequestBody RightsForm typed, @AuthenticationPrincipal Account account) {
        exchanges.change(id, typed.version(), new ExchangeTerms(typed.putIn(), typed.see(), typed.takeAway(), typed.asksFirst()), account.id());
        return exchange(id);
    }

    /** Writes to its person what lies there for them. */
    @PostMapping("/api/exchanges/{id}/letter")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void writeToExchange(@PathVariable long id, @AuthenticationPrincipal Account account) {
        exchanges.write(id, account.id());
    }

    /** Puts a file that was taken back there again. */
    @PostMapping("/api/exchanges/{id}/files/{file}/put-back")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void putFileBack(@PathVariable long id, @PathVariable long file, @AuthenticationPrincipal Account account) {
        exchanges.putBack(id, file, account.id());
    }

    /** Says that a file that lies there answers one that its person put in, such as a corrected form. */
    @PutMapping("/api/exchanges/{id}/answers")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void fileAnswers(@PathVariable long id, @RequestBody AnswerForm form) {
        exchanges.answers(id, form.file(), form.received());
    }

    private Exchanges.Sheet sheet(ExchangeSheet typed) {
        Integer days = typed.days();
        if (days != null && (days < 1 || days > LinkWindow.LONGEST_LIFE.toDays())) {
            throw Problem.field("days", "link-days", LinkWindow.LONGEST_LIFE.toDays());
        }
        Instant now = clock.instant();
        Instant begins = Typed.begin(typed.beginsOn(), typed.beginsAt(), settings.zone());
        LinkWindow window = days != null ? LinkWindow.ofDays(now, begins, days, settings.zone()) : new LinkWindow(now, begins, Typed.end(typed.endsOn(), typed.endsAt(), settings.zone()));
        List<Fault> ofPerson = new ArrayList<>();
        Person person = person(typed.person(), ofPerson);
        return new Exchanges.Sheet(Typed.text(typed.title()), Typed.text(typed.message()), person, ofPerson, Typed.text(typed.item()),
                new ExchangeTerms(typed.putIn(), typed.see(), typed.takeAway(), typed.asksFirst()), window, Typed.text(typed.passcode()).strip(), Typed.readableName(typed.name()), typed.byLetter());
    }

    /** @return null when something is wrong with it, which is then among the faults */
    private @Nullable Person person(@Nullable ExchangePerson typed, List<Fault> faults) {
        if (typed == null || Typed.text(typed.email()).isBlank()) {
            faults.add(Fault.of("person", "exchange-person-missing"));
            return null;
        }
        try {
            MailAddress address = reach.needed(MailAddress.parse(Typed.text(typed.email())));
            String name = Typed.text(typed.name()).strip();
            return new Person(name.isEmpty() ? address.text().substring(0, address.text().lastIndexOf('@')) : name, address);
        } catch (FaultyValue fault) {
            faults.add(fault.at("person"));
            return null;
        }
    }
}
