package oakbasket.server.mail;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.fault.Remark;
import oakbasket.core.identity.MailAddress;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Which addresses the mail server can carry letters to. One that it cannot is refused where it is typed, and not weeks later when somebody waits for an answer. */
@Service
public class MailReach {

    private static final Duration REMEMBERED = Duration.ofMinutes(10);
    /** A server that is not there is waited for once a minute, not once for each address of a list. */
    private static final Duration AWAY = Duration.ofMinutes(1);

    private final Mailer mailer;
    private final Clock clock;
    private @Nullable Instant askedAt;
    private Optional<Boolean> carries = Optional.empty();

    MailReach(Mailer mailer, Clock clock) {
        this.mailer = mailer;
        this.clock = clock;
    }

    /** Whether letters to an address are carried, as far as is known: a server that is not there at this moment is not held against it. The server is asked only about addresses that not every server carries. */
    public boolean carried(MailAddress address) {
        return !address.needsUtf8() || utf8().orElse(true);
    }

    /** The same as a value that was typed. @throws FaultyValue when it is not carried */
    public MailAddress needed(MailAddress address) {
        if (!carried(address)) {
            throw new FaultyValue(Remark.of("address-not-carried", address.text()));
        }
        return address;
    }

    /** What is wrong with an address at a field; empty where nothing is. */
    public Optional<Fault> fault(String field, MailAddress address) {
        return carried(address) ? Optional.empty() : Optional.of(Fault.of(field, "address-not-carried", address.text()));
    }

    private synchronized Optional<Boolean> utf8() {
        Instant now = clock.instant();
        Instant before = askedAt;
        if (before == null || !now.isBefore(before.plus(carries.isEmpty() ? AWAY : REMEMBERED))) {
            carries = mailer.carriesUtf8();
            askedAt = now;
        }
        return carries;
    }
}
