package oakbasket.server.handout;

import java.util.ArrayList;
import java.util.List;
import oakbasket.server.Settings;
import oakbasket.server.account.AccountService;
import oakbasket.server.brand.Brand;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.parcel.Parcel;
import oakbasket.server.parcel.ParcelFiles;
import oakbasket.server.parcel.ParcelLink;
import oakbasket.server.parcel.ParcelLinks;
import oakbasket.server.parcel.Parcels;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.PasscodeTickets;
import oakbasket.server.words.SenderLanguages;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Service;

/** Sheets of paper that carry the links of a parcel, one each. */
@Service
class ParcelHandouts {

    /** As many files are named on a sheet. */
    private static final int MOST_NAMED = 12;

    private final Parcels parcels;
    private final ParcelLinks links;
    private final ParcelFiles files;
    private final Contacts contacts;
    private final AccountService accounts;
    private final PasscodeTickets tickets;
    private final PdfMaker pdf;
    private final Words words;
    private final Settings settings;
    private final Brand brand;

    ParcelHandouts(Parcels parcels, ParcelLinks links, ParcelFiles files, Contacts contacts, AccountService accounts, PasscodeTickets tickets, PdfMaker pdf, Words words, Settings settings, Brand brand) {
        this.brand = brand;
        this.parcels = parcels;
        this.links = links;
        this.files = files;
        this.contacts = contacts;
        this.accounts = accounts;
        this.tickets = tickets;
        this.pdf = pdf;
        this.words = words;
        this.settings = settings;
    }

    /** The path of the page behind a link, or 404. */
    String path(long link) {
        ParcelLink its = links.byId(link);
        return links.path(its, parcels.byId(its.parcelId()).name());
    }

    /**
     * The sheets of some links of a parcel as one PDF; withdrawn links get none.
     *
     * @param passcode to be torn off; empty for none. It has to be the one the parcel asks for
     * @param address what addresses begin with
     */
    byte[] of(long id, List<Long> wanted, String passcode, String address) {
        Parcel parcel = parcels.byId(id);
        String hash = parcel.passcodeHash();
        if (!passcode.isEmpty() && (hash == null || !tickets.matches(passcode, hash))) {
            throw Problem.field("passcode", "handout-passcode");
        }
        List<String> names = files.of(id).stream().map(file -> file.fileName()).toList();
        List<HandoutPage.Sheet> sheets = new ArrayList<>();
        HandoutPage.SheetLook look = HandoutPage.look(brand);
        for (ParcelLink link : links.byIds(wanted)) {
            if (link.parcelId() != id || link.withdrawnAt() != null) {
                continue;
            }
            Long contact = link.contactId();
            Contact person = contact == null ? null : contacts.byId(contact);
            Words spoken = words.in(SenderLanguages.ofTag(person == null ? "" : person.language()).orElse(words.language()));
            List<HandoutPage.Line> lines = new ArrayList<>(names.stream().limit(MOST_NAMED).map(name -> new HandoutPage.Line(name, "", false)).toList());
            if (names.size() > MOST_NAMED) {
                lines.add(new HandoutPage.Line(spoken.of("letter.more-files", names.size() - MOST_NAMED), "", false));
            }
            sheets.add(new HandoutPage.Sheet(spoken, brand.name(), accounts.current(parcel.accountId()).name(), parcel.title(), person == null ? "" : person.name(), parcel.message(),
                    Handouts.moment(parcel.window().end(), settings.zone(), spoken), lines, address + links.path(link, parcel.name()), true, hash != null, hash == null ? "" : passcode, look));
        }
        if (sheets.isEmpty()) {
            throw Problem.refused("handout-none");
        }
        return pdf.make(HandoutPage.of(sheets));
    }
}
