package oakbasket.server.round;

import java.time.Clock;
import oakbasket.core.compose.SheetContext;
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
    SheetContext composing() {
        return context(false);
    }

    /** For a round that gathers. */
    SheetContext changing() {
        return context(true);
    }

    private SheetContext context(boolean changing) {
        return new SheetContext(clock.instant(), contacts.groupSizes(), calendars::closedBecause, calendars::exists, forms::exists, changing);
    }
}
