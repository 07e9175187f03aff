package oakbasket.server.compose;

import java.time.Clock;
import oakbasket.core.compose.SheetContext;
import oakbasket.server.calendar.Calendars;
import oakbasket.server.contact.Contacts;
import oakbasket.server.form.Forms;
import oakbasket.server.lettersetting.LetterSettings;
import oakbasket.server.mail.MailReach;
import org.springframework.stereotype.Service;

/** Gathers what a sheet is checked against. */
@Service
public class SheetContexts {

    private final Contacts contacts;
    private final Calendars calendars;
    private final Forms forms;
    private final LetterSettings settings;
    private final MailReach reach;
    private final Clock clock;

    SheetContexts(Contacts contacts, Calendars calendars, Forms forms, LetterSettings settings, MailReach reach, Clock clock) {
        this.reach = reach;
        this.contacts = contacts;
        this.calendars = calendars;
        this.forms = forms;
        this.settings = settings;
        this.clock = clock;
    }

    /** For a draft. */
    public SheetContext composing() {
        return context(false);
    }

    /** For a round that gathers. */
    public SheetContext changing() {
        return context(true);
    }

    private SheetContext context(boolean changing) {
        return new SheetContext(clock.instant(), contacts.groupSizes(), calendars::closedBecause, calendars::exists, forms::exists, settings.now().quiet(), reach::carried, changing);
    }
}
