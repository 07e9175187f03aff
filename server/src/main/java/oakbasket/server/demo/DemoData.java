package oakbasket.server.demo;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.List;
import oakbasket.core.allowance.AllowanceChange;
import oakbasket.core.arrival.Archives;
import oakbasket.core.compose.RoundSheet;
import oakbasket.core.compose.RoundSheet.SheetItem;
import oakbasket.core.compose.RoundSheet.SheetPerson;
import oakbasket.core.compose.RoundSheetBuilder;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.identity.Claim;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.reminder.ReminderStep;
import oakbasket.core.round.RoundState;
import oakbasket.core.standing.Progress;
import oakbasket.core.standing.Review;
import oakbasket.core.team.Role;
import oakbasket.server.Settings;
import oakbasket.server.account.AccountService;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.bell.Bell;
import oakbasket.server.board.Board;
import oakbasket.server.calendar.Calendars;
import oakbasket.server.calendar.ClosingDay;
import oakbasket.server.calendar.WorkCalendar;
import oakbasket.server.claim.Claims;
import oakbasket.server.contact.Contacts;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.opening.Opening;
import oakbasket.server.post.Letters;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Drafts;
import oakbasket.server.round.Item;
import oakbasket.server.round.Rounds;
import oakbasket.server.series.SeriesRounds;
import oakbasket.server.storage.Transactions;
import oakbasket.server.template.Templates;
import oakbasket.server.upload.Uploads;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;

/**
 * Fills an empty data folder with the Fennbrook Catchment Partnership, an invented river-restoration office: three rounds in full swing with every
 * standing, dated relative to the start. Files go through the same filing as real ones.
 */
@Component
@ConditionalOnProperty("oakbasket.demo")
class DemoData implements ApplicationRunner {

    static final String EMAIL = "coordinator@example.org";
    static final String PASSWORD = "river oak basket";
    static final String PASSCODE = "kingfisher";
    /** As a mail server would say it (RFC 5321, 4.2.2). */
    private static final String NO_MAILBOX = "550 5.1.1 There is no such mailbox here";

    private static final Logger LOG = LoggerFactory.getLogger(DemoData.class);

    private final AccountService accounts;
    private final Contacts contacts;
    private final Rounds rounds;
    private final Drafts drafts;
    private final Opening opening;
    private final Baskets baskets;
    private final Submissions submissions;
    private final Links links;
    private final Uploads uploads;
    private final ReceivedFiles files;
    private final Calendars calendars;
    private final SeriesRounds series;
    private final Templates templates;
    private final Claims claims;
    private final Letters letters;
    private final Board board;
    private final Bell bell;
    private final DemoLinks demoLinks;
    private final DemoParcels demoParcels;
    private final DemoExchanges demoExchanges;
    private final DemoFiling demoFiling;
    private final Transactions transactions;
    private final Settings settings;
    private final Instant now;

    DemoData(AccountService accounts, Contacts contacts, Rounds rounds, Drafts drafts, Opening opening, Baskets baskets, Submissions submissions, Links links, Uploads uploads,
            ReceivedFiles files, Calendars calendars, SeriesRounds series, Templates templates, Claims claims, Letters letters, Board board, Bell bell, DemoLinks demoLinks, DemoParcels demoParcels, DemoExchanges demoExchanges, DemoFiling demoFiling, Transactions transactions, Settings settings, Clock clock) {
        this.accounts = accounts;
        this.contacts = contacts;
        this.rounds = rounds;
        this.drafts = drafts;
        this.opening = opening;
        this.baskets = baskets;
        this.submissions = submissions;
        this.links = links;
        this.uploads = uploads;
        this.files = files;
        this.calendars = calendars;
        this.series = series;
        this.templates = templates;
        this.claims = claims;
        this.letters = letters;
        this.board = board;
        this.bell = bell;
        this.demoLinks = demoLinks;
        this.demoParcels = demoParcels;
        this.demoExchanges = demoExchanges;
        this.demoFiling = demoFiling;
        this.transactions = transactions;
        this.settings = settings;
        this.now = clock.instant().truncatedTo(ChronoUnit.MINUTES);
    }

    @Override
    public void run(ApplicationArguments arguments) {
        if (!accounts.setUpNeeded()) {
            return;
        }
        long account = accounts.make(new Person("Robin Fenn", MailAddress.parse(EMAIL)), PASSWORD).id();
        accounts.make(new Person("Jo Heron", MailAddress.parse("jo@fennbrook.example.org")), PASSWORD, Role.COORDINATOR);
        accounts.make(new Person("Ada Kestrel", MailAddress.parse("ada@fennbrook.example.org")), PASSWORD, Role.READER);
        transactions.durably(() -> {
            join("Landowners", DemoPeople.LANDOWNERS);
            join("River-fly surveyors", DemoPeople.SURVEYORS);
            join("Placement trainees", DemoPeople.TRAINEES);
        });
        demoFiling.ofOffice(account);
        placementPortfolios(account);
        riverFlySheets(account);
        demoFiling.byHand(consentPacks(account), account);
        demoFiling.byPost(account);
        lastAutumn(account);
        drafts.begin(sheet("Bankside tree inventory", "", List.of(item("Inventory sheet", "One row per tree.", true, 1, 1, "SPREADSHEET")),
                List.of(), today().plusDays(34), "", false, plan(-7)), account);
        keptForNextTime(account);
        demoLinks.make(account);
        demoParcels.make(account);
        demoExchanges.make(account);
        accounts.backdateLook(account, daysAgo(1, 12));
        bell.seen(account, Long.MAX_VALUE, Long.MAX_VALUE, null);
        LOG.info("Demo data made. Sign in as {} with the password “{}”. The passcode of “Placement portfolios” is “{}”.", EMAIL, PASSWORD, PASSCODE);
    }

    private void join(String group, List<DemoPeople.Invented> people) {
        people.forEach(one -> contacts.join(group, contacts.add(one.person(), one.organisation(), one.reference(), false)));
    }

    // --- the three rounds

    private long consentPacks(long account) {
        List<SheetItem> items = List.of(
                item("Signed access consent", "Page 4 of the pack, signed by everybody who owns the land.", true, 1, 2, "PDF"),
                item("Field boundary map", "Mark the strip we may plant. A photo of the marked map is fine.", true, 1, 4, "PDF", "IMAGE"),
                item("Insurance certificate", "Public liability, valid through next March.", true, 1, 1, "PDF"),
                item("Anything we should know", "Gates, dogs, soft ground, nesting birds.", false, 1, 5));
        long round = open(account, sheet("Landowner consent packs, winter planting",
                "Thank you for giving the Fenn a greener bank. We need these three papers before our contractor can start.", items,
                DemoPeople.LANDOWNERS, today().plusDays(6), "17:00", false, plan(-10)), 16, today().plusDays(6));
        List<Basket> all = baskets.ofRound(round);
        List<Item> list = rounds.items(round);
        for (int i = 0; i < all.size(); i++) {
            Basket basket = all.get(i);
            String name = DemoPeople.LANDOWNERS.get(i).person().name();
            boolean asked = i != 21 && i != 22;
            boolean seen = asked && i != 7 && i != 16 && i != 19;
            baskets.backdate(basket.id(), asked ? daysAgo(15, 9) : null, seen ? daysAgo(14 - i % 9, 10 + i % 7) : null, i == 10 ? daysAgo(5, 11) : null,
                    i == 5 ? today().plusDays(13) : null, "Away until the end of the month");
            Instant at = daysAgo(12 - i % 11, 9 + i % 8);
            if (!seen || i % 6 == 4 || i == 10) {
                continue;
            }
            if (i % 6 != 3) {
                send(basket, list.get(0), "scan%04d.pdf".formatted(200 + i), consent(name), at, i % 3 != 2 ? Review.ACCEPTED : i == 8 ? Review.RETURNED : Review.NONE,
                        i == 8 ? "The signature page is missing" : "");
            }
            if (i % 6 < 3) {
                boolean photo = i % 2 == 0;
                send(basket, list.get(1), photo ? "IMG_%d.jpg".formatted(4100 + i) : "boundary map.pdf",
                        photo ? DemoFiles.photo(i, "jpg") : DemoFiles.pdf("Field boundaries", List.of(name, "Strip of 6 m along the left bank marked in green")), at,
                        i % 3 == 0 ? Review.ACCEPTED : Review.NONE, "");
                send(basket, list.get(2), "certificate.pdf", DemoFiles.pdf("Certificate of insurance", List.of("Insured: " + name, "Public liability, valid through 31 March")), at,
                        i % 3 == 0 ? Review.ACCEPTED : Review.NONE, "");
            }
            if (i % 6 == 5) {
                baskets.backdate(basket.id(), new AllowanceChange.ExcuseItem(list.get(2).id(), true), at.plus(Duration.ofHours(3)));
            }
            if (i % 5 == 0) {
                send(basket, list.get(3), "notes.txt", DemoFiles.text("The top gate sticks; lift it.", "Please keep the dog in the van.", "— " + name), at, Review.NONE, "");
            }
        }
        long unreachable = all.get(16).id();
        letters.backdate(all.stream().filter(basket -> baskets.byId(basket.id()).askedAt() != null).map(Basket::id).filter(id -> id != unreachable).toList(), LetterKind.INVITATION, daysAgo(15, 9), "");
        letters.backdate(List.of(unreachable), LetterKind.INVITATION, daysAgo(15, 9), NO_MAILBOX);
        wrote(round, LetterKind.REMINDER, daysAgo(4, 9), unreachable);
        return round;
    }

    private void riverFlySheets(long account) {
        List<SheetItem> items = List.of(
                item("Survey sheet", "The counts of the day, one row per group.", true, 1, 1, "SPREADSHEET"),
                item("Site photos", "Upstream, downstream and the kick site: at least three.", true, 3, 12, "IMAGE").opening(Archives.OPENED),
                item("GPS track", "If your device keeps one.", false, 1, 1, "TRACK"));
        LocalDate deadline = today().minusDays(3);
        long round = open(account, sheet("River-fly survey sheets", "Your counts of this month. Thank you for standing in cold water for the river.", items,
                DemoPeople.SURVEYORS, today().plusDays(9), "", false, plan(-3)), 24, deadline);
        demoFiling.lateToTray(round, account);
        List<Basket> all = baskets.ofRound(round);
        List<Item> list = rounds.items(round);
        for (int i = 0; i < all.size(); i++) {
            Basket basket = all.get(i);
            baskets.backdate(basket.id(), daysAgo(23, 8), i % 7 == 6 ? null : daysAgo(20 - i % 8, 18), null, i == 11 ? today().plusDays(2) : null, "Reach was in flood");
            if (i % 7 == 6 || i == 11) {
                continue;
            }
            boolean late = i == 3 || i == 8 || i == 14;
            // One too late today, one yesterday, one within grace.
            Instant at = late ? daysAgo(i / 6, 7) : daysAgo(13 - i % 9, 17);
            Review review = i % 2 == 0 && !late ? Review.ACCEPTED : Review.NONE;
            send(basket, list.get(0), "counts.xlsx", DemoFiles.workbook(List.of(List.of("Group", "Count"), List.of("Cased caddis", "" + (4 + i)), List.of("Mayfly", "" + (20 + i * 3)),
                    List.of("Stonefly", "" + i), List.of("Gammarus", "" + (90 - i)))), at, review, "");
            int photos = i % 4 == 1 ? 2 : 3 + i % 2;
            for (int n = 0; n < photos; n++) {
                send(basket, list.get(1), "DSC%05d.jpg".formatted(1200 + i * 10 + n), DemoFiles.photo(i * 31L + n, "jpg"), at.plusSeconds(n), review, "");
            }
            if (i % 3 == 0) {
                send(basket, list.get(2), "walk.gpx", DemoFiles.track(i), at, review, "");
            }
        }
        letters.backdate(all.stream().map(Basket::id).toList(), LetterKind.INVITATION, daysAgo(23, 8), "");
        wrote(round, LetterKind.REMINDER, daysAgo(6, 9), 0);
        wrote(round, LetterKind.OVERDUE, daysAgo(2, 9), 0);
    }

    private void placementPortfolios(long account) {
        List<SheetItem> items = List.of(
                item("Learning log", "All weeks in one file.", true, 1, 1, "PDF", "DOCUMENT"),
                item("Supervisor sign-off", "Signed and dated.", true, 1, 1, "PDF"),
                item("Reflective report", "1,500 words.", true, 1, 1, "PDF", "DOCUMENT"));
        long round = open(account, sheet("Placement portfolios", "Please hand in the three parts of your portfolio here.", items, DemoPeople.TRAINEES,
                today().plusDays(19), "12:00", true, plan(-7)), 6, today().plusDays(19));
        List<Item> list = rounds.items(round);
        Link open = links.openOf(round).orElseThrow();
        List<Basket> all = baskets.ofRound(round);
        all.forEach(basket -> baskets.backdate(basket.id(), daysAgo(6, 9), basket.id() % 2 == 0 ? daysAgo(4, 15) : null, null, null, ""));
        letters.backdate(all.stream().map(Basket::id).toList(), LetterKind.INVITATION, daysAgo(6, 9), "");
        for (int i : new int[] {0, 3, 4}) {
            Submission sending = submissions.backdated(open, DemoPeople.TRAINEES.get(i).person(), daysAgo(3, 20));
            receive(sending, list.get(0), "log final v2.pdf", DemoFiles.pdf("Learning log", List.of(DemoPeople.TRAINEES.get(i).person().name(), "Week 1: willow spiling")), daysAgo(3, 20));
            if (i == 0) {
                claims.decide(sending.id(), Claim.OPEN, Claim.ACCEPTED, account);
            }
        }
        for (int i = 0; i < DemoPeople.WALK_INS.size(); i++) {
            Person person = DemoPeople.WALK_INS.get(i).person();
            Submission sending = submissions.backdated(open, person, daysAgo(1, 16 + i));
            if (i > 0) {
                submissions.confirm(sending.id());
            }
            receive(sending, list.get(2), "report.txt", DemoFiles.text("What I learned on the river", "", "By " + person.name()), daysAgo(1, 16 + i));
        }
    }

    /** A closed round whose papers are soon kept no longer. */
    private void lastAutumn(long account) {
        RoundSheet sheet = RoundSheetBuilder.builder(sheet("Otter watch, last autumn", "Your notes of the three watches.", List.of(item("Watch notes", "One page for each watch.", true, 1, 3)),
                DemoPeople.SURVEYORS.subList(0, 4), today().plusDays(1), "", false, RoundSheet.SheetLetters.NONE)).keepUntil(today().plusDays(9).toString()).build();
        long round = open(account, sheet, 190, today().minusDays(160));
        Item notes = rounds.items(round).get(0);
        for (Basket basket : baskets.ofRound(round)) {
            baskets.backdate(basket.id(), daysAgo(189, 9), daysAgo(180, 10), null, null, "");
            send(basket, notes, "watch.txt", DemoFiles.text("Dusk to nine, by the alder stump.", "One adult, two cubs."), daysAgo(165, 20), Review.ACCEPTED, "");
        }
        rounds.change(round, RoundState.Change.CLOSE);
    }

    /** The office's calendar, a kept checklist, and the survey sheets that come again each month. */
    private void keptForNextTime(long account) {
        WorkCalendar office = calendars.all().get(0);
        calendars.change(office.id(), office.version(), office.name(), office.weekend(), "gb", "eng");
        calendars.close(office.id(), List.of(new ClosingDay(LocalDate.of(today().getYear(), 12, 24), "Office closed"), new ClosingDay(LocalDate.of(today().getYear(), 12, 29), "Office closed")));
        long surveys = rounds.all().stream().filter(head -> head.title().equals("River-fly survey sheets")).findFirst().orElseThrow().id();
        series.begin(surveys, new SeriesRounds.SeriesTerms("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1", today().plusMonths(2).withDayOfMonth(1), 14, WorkingDays.Shift.EARLIER, true), account);
        templates.keep(Templates.TemplateKind.CHECKLIST, "Consent pack", drafts.draft(rounds.all().stream().filter(head -> head.title().startsWith("Landowner")).findFirst().orElseThrow().id()).sheet(), false);
    }

    // --- helpers

    private long open(long account, RoundSheet sheet, int openedDaysAgo, LocalDate deadline) {
        Drafts.Draft draft = drafts.begin(sheet, account);
        long id = opening.open(draft.head().id(), draft.head().version()).id();
        rounds.backdate(id, daysAgo(openedDaysAgo, 8), deadline);
        return id;
    }

    private void send(Basket basket, Item item, String name, byte[] content, Instant at, Review review, String reason) {
        Submission sending = submissions.backdated(links.ofBasket(basket.id()).orElseThrow(), null, at);
        ReceivedFile file = receive(sending, item, name, content, at);
        if (review != Review.NONE) {
            files.backdate(file.id(), review, reason, earlier(at.plus(Duration.ofHours(20)), now.minusSeconds(60)));
        }
    }

    private ReceivedFile receive(Submission sending, Item item, String name, byte[] content, Instant at) {
        uploads.receiveWhole(sending, item, name, content, at);
        return files.ofSubmission(sending.id()).get(0);
    }

    /** Letters of the past to all who owed something then. */
    private void wrote(long round, LetterKind kind, Instant at, long butNot) {
        letters.backdate(board.judge(round).rows().stream().filter(row -> row.progress() != Progress.NOT_ASKED && !row.waived() && row.id() != butNot)
                .filter(row -> row.finishedAt() == null || row.finishedAt().isAfter(at)).map(Board.Row::id).toList(), kind, at, "");
    }

    private static RoundSheet.SheetLetters plan(int first) {
        return new RoundSheet.SheetLetters(false, true, true, true, true, List.of(new RoundSheet.SheetStep(first, ReminderStep.Unit.CALENDAR, "09:00"),
                new RoundSheet.SheetStep(-1, ReminderStep.Unit.WORKING, "09:00"), new RoundSheet.SheetStep(1, ReminderStep.Unit.WORKING, "09:00")), 5, 3, WorkingDays.Shift.EARLIER);
    }

    private static byte[] consent(String name) {
        return DemoFiles.pdf("Access consent", List.of("I, " + name + ", let the Fennbrook Catchment Partnership", "enter the land marked on the map to plant and to tend.", "", "Signed: " + name));
    }

    private RoundSheet sheet(String title, String note, List<SheetItem> items, List<DemoPeople.Invented> people, LocalDate deadline, String time, boolean open,
            RoundSheet.SheetLetters letters) {
        return RoundSheetBuilder.builder().title(title).note(note).items(items)
                .people(people.stream().map(one -> new SheetPerson(one.person().name(), one.person().address().text())).toList())
                .deadlineDate(deadline.toString()).deadlineTime(time).zone(settings.zone().getId()).warningHours(24 * 7).graceHours(24)
                .folderPattern("{round}/{person}").namePattern("{person} - {item} - {received:yyyy-MM-dd}{ext}").openLink(open).passcode(open ? PASSCODE : "")
                .letters(letters).build();
    }

    private static SheetItem item(String title, String help, boolean required, int min, int max, String... kinds) {
        return SheetItem.of(title, help, required, min, max, List.of(kinds), 50);
    }

    private LocalDate today() {
        return LocalDate.ofInstant(now, zone());
    }

    private ZoneId zone() {
        return settings.zone();
    }

    /** A time of day some days ago, never later than a few minutes before now. */
    private Instant daysAgo(int days, int hour) {
        return earlier(today().minusDays(days).atTime(hour, (days * 17 + hour * 7) % 60).atZone(zone()).toInstant(), now.minusSeconds(300));
    }

    private static Instant earlier(Instant one, Instant other) {
        return one.isBefore(other) ? one : other;
    }
}
