package oakbasket.core.exchange;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import oakbasket.core.fault.Fault;
import oakbasket.core.link.LinkWindow;
import oakbasket.core.link.Passcode;

/** What keeps an exchange from being opened. */
public final class ExchangeCheck {

    /** The longest title in characters. */
    public static final int LONGEST_TITLE = 150;
    /** The longest message in characters. */
    public static final int LONGEST_MESSAGE = 4_000;
    /** The most files that may be put in by the person. */
    public static final int MOST_FILES_IN = 1_000;
    /** How long after the end of its link the files that were put there for the person are kept. */
    public static final Duration KEPT_AFTER_END = Duration.ofDays(30);
    /** How long a file that was taken back can be put there again. */
    public static final Duration KEPT_TAKEN_BACK = Duration.ofDays(1);

    private ExchangeCheck() {
    }

    /**
     * What was typed of an exchange.
     *
     * @param passcode empty for none
     */
    public record Typed(String title, String message, ExchangeTerms terms, LinkWindow window, String passcode) {
    }

    /** What is wrong, field by field; empty when it can be opened. */
    public static List<Fault> faults(Typed typed, Instant now) {
        List<Fault> faults = new ArrayList<>();
        if (typed.title().isBlank()) {
            faults.add(Fault.of("title", "exchange-title-missing"));
        } else if (typed.title().length() > LONGEST_TITLE) {
            faults.add(Fault.of("title", "longest", LONGEST_TITLE));
        } else if (typed.title().chars().anyMatch(Character::isISOControl)) {
            faults.add(Fault.of("title", "one-line"));
        }
        if (typed.message().length() > LONGEST_MESSAGE) {
            faults.add(Fault.of("message", "longest", LONGEST_MESSAGE));
        }
        faults.addAll(faults(typed.terms()));
        typed.window().fault(now).ifPresent(faults::add);
        Passcode.fault(typed.passcode()).ifPresent(faults::add);
        return faults;
    }

    /** What is wrong with terms alone. */
    public static List<Fault> faults(ExchangeTerms terms) {
        return terms.any() ? List.of() : List.of(Fault.of("putIn", "exchange-nothing-allowed"));
    }
}
