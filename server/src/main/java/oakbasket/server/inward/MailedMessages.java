package oakbasket.server.inward;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.Known;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Messages that came by mail, as the desk lists and shows them. */
@Service
public class MailedMessages {

    private static final int PAGE = 50;
    private static final int MOST_FOUND = 500;

    /** Something attached, and what became of it. */
    public record MailedPart(String name, long bytes, InwardPart.Outcome outcome, String why, String item, @Nullable Long fileId) {
    }

    /**
     * A message.
     *
     * @param name the contact it is supposed to be of; empty where nobody is
     * @param round the title of the round it is about; empty where that is not clear
     * @param confirmed whether it is sure that it comes from the contact
     * @param why why it could not be dealt with, or what a report says
     * @param kept whether it still lies as it came, for whoever may have it so
     * @param answer what was answered; empty where nothing was
     */
    public record MailedMessage(long id, InwardMessage.Kind kind, Instant at, String fromName, String fromAddress, String subject, String text, @Nullable Long contactId, String name, @Nullable Long roundId, String round,
            @Nullable Long basketId, @Nullable Long letterId, boolean confirmed, String why, boolean read, boolean kept, InwardMessage.AnswerState answerState, String answer, String answerTrouble, long bytes,
            List<MailedPart> parts) {
    }

    /** @param trouble why the mailbox cannot be read at present; empty when it can */
    public record MailedPage(boolean reads, String trouble, int unread, List<MailedMessage> messages, boolean more) {
    }

    private final InwardTable table;
    private final Collecting collecting;
    private final Contacts contacts;
    private final Rounds rounds;
    private final DataFolder folder;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;

    MailedMessages(InwardTable table, Collecting collecting, Contacts contacts, Rounds rounds, DataFolder folder, Transactions transactions, LiveHub live, Clock clock) {
        this.table = table;
        this.collecting = collecting;
        this.contacts = contacts;
        this.rounds = rounds;
        this.folder = folder;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
    }

    /** Messages, the newest first. @param all whether also what programs sent @param find part of a name or address; empty for all */
    MailedPage page(boolean all, String find, @Nullable Long basket, @Nullable Long before) {
        List<Long> found = find.isBlank() ? null : contacts.find(find.strip(), MOST_FOUND).stream().map(Contact::id).toList();
        List<InwardMessage> page = table.page(!all, found, basket, before == null ? Long.MAX_VALUE : before, PAGE + 1);
        return new MailedPage(collecting.reads(), collecting.trouble(), table.unread(), listed(page.subList(0, Math.min(PAGE, page.size()))), page.size() > PAGE);
    }

    MailedMessage one(long id) {
        return listed(List.of(byId(id))).get(0);
    }

    /** Says that a message was read, or not. */
    void read(long id, boolean read, long account) {
        byId(id);
        transactions.durably(() -> table.read(id, read ? clock.instant() : null, read ? (Long) account : null));
        live.publish(new LiveEvent(LiveEvent.LETTER, 0, null));
    }

    /** Where the message lies as it came. @throws Problem with status 404 when it is not kept any more */
    Path path(long id) {
        InwardMessage message = byId(id);
        Path path = folder.postIn().resolve(message.fileName());
        if (message.fileName().isEmpty() || !Files.exists(path)) {
            throw Problem.notFound("no-file");
        }
        return path;
    }

    /** The highest number of a message. */
    public long newestId() {
        return table.newestId();
    }

    /** What people wrote after a message, the newest first; as many as one page has. */
    public List<MailedMessage> since(long id) {
        return listed(table.page(true, null, null, Long.MAX_VALUE, PAGE).stream().filter(one -> one.id() > id && one.readAt() == null).toList());
    }

    /** How many nobody has read. */
    public int unread() {
        return table.unread();
    }

    private InwardMessage byId(long id) {
        return table.byId(id).orElseThrow(() -> Problem.notFound("no-message"));
    }

    private List<MailedMessage> listed(List<InwardMessage> page) {
        Map<Long, List<InwardPart>> parts = table.parts(page.stream().map(InwardMessage::id).toList()).stream().collect(Collectors.groupingBy(InwardPart::messageId));
        Map<Long, Contact> people = contacts.byIds(page.stream().map(InwardMessage::contactId).filter(Objects::nonNull).distinct().toList());
        Map<Long, String> titles = rounds.all().stream().collect(Collectors.toMap(Rounds.Head::id, Rounds.Head::title));
        return page.stream().map(one -> {
            Long contact = one.contactId();
            Long round = one.roundId();
            return new MailedMessage(one.id(), one.kind(), one.cameAt(), one.fromName(), one.fromAddress(), one.subject(), one.text(), contact, contact == null ? "" : Known.in(people, contact).name(), round,
                    round == null ? "" : titles.getOrDefault(round, ""), one.basketId(), one.letterId(), one.confirmed(), one.why(), one.readAt() != null, !one.fileName().isEmpty() && !Acting.readsOnly(), one.answerState(),
                    one.answerBody(), one.answerTrouble(), one.sizeBytes(), parts.getOrDefault(one.id(), List.of()).stream()
                            .map(part -> new MailedPart(part.name(), part.sizeBytes(), part.outcome(), part.why(), part.item(), part.fileId())).toList());
        }).toList();
    }
}
