package oakbasket.server.round;

import java.time.Clock;
import oakbasket.server.calendar.Calendars;
import oakbasket.server.contact.Contacts;
import org.springframework.stereotype.Service;

/** Gathers what a sheet is checked against. */
@Service
class SheetContexts {

    private final Contacts contacts;
    private final Calendars calendars;
    private final FormTable forms;
    private final Clock clock;

    SheetContexts(Contacts contacts, Calendars calendars, FormTable forms, Clock clock) {
        this.contacts = contacts;
        this.calendars = calendars;
        this.forms = forms;
        this.clock = clock;
    }

    /** For a draft. */
    SheetCheck.Context composing() {
        return context(false);
    }

    /** For a round that gathers. */
    SheetCheck.Context changing() {
        return context(true);
    }

    private SheetCheck.Context context(boolean changing) {
        return new SheetCheck.Context(clock.instant(), contacts.groupSizes(), calendars::closedBecause, calendars::exists, forms::exists, changing);
    }
}
