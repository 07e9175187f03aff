package oakbasket.server.filing;

import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import oakbasket.core.naming.ClashNumber;
import oakbasket.core.naming.NameFacts;
import oakbasket.core.naming.NameFactsBuilder;
import oakbasket.core.naming.NameField;
import oakbasket.core.naming.NamingPattern;
import oakbasket.core.naming.SafeName;
import oakbasket.core.receipt.ReceiptCode;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Submission;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.storage.FileStore;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Service;

/** Chooses the folder and name of a file by its round's patterns; a name that is taken gets a number. */
@Service
public class Filing {

    private static final int MOST_REMEMBERED = 10_000;

    private final Contacts contacts;
    private final ReceivedFiles files;
    private final FileStore store;
    private final String claimedFolder;
    private final String groupless;
    /** The last number given out per name, so that the thousandth file of one name does not try a thousand names. */
    private final Map<String, Integer> numbers = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Integer> eldest) {
            return size() > MOST_REMEMBERED;
        }
    };

    Filing(Contacts contacts, ReceivedFiles files, FileStore store, Words words) {
        this.claimedFolder = SafeName.of(words.of("folder.claimed"));
        this.groupless = words.of("folder.no-group");
        this.contacts = contacts;
        this.files = files;
        this.store = store;
    }

    /** A free place for a file, different for each call. What is claimed lies in a folder of its own, never among the papers of the person it names. */
    public String choose(Round round, Basket basket, Submission submission, Item item, String originalName, Instant receivedAt) {
        NamingPattern folders = NamingPattern.folders(round.folderPattern());
        NamingPattern name = NamingPattern.fileName(round.namePattern());
        boolean numbered = folders.uses(NameField.NUMBER) || name.uses(NameField.NUMBER);
        Contact contact = contacts.byId(basket.contactId());
        NameFacts facts = NameFactsBuilder.stagedBuilder().round(round.title()).group(contact.group().isBlank() ? groupless : contact.group())
                .person(contact.name()).organisation(contact.organisation()).email(contact.email()).reference(contact.reference())
                .item(item.spec().title()).original(originalName).received(receivedAt).deadline(round.deadline().instant()).zone(round.zone())
                .receipt(new ReceiptCode(submission.receiptCode()).toString()).number(numbered ? files.countOfItem(basket.id(), item.id()) + 1 : 1)
                .build();
        String folder = (submission.keptApart() ? claimedFolder + "/" : "") + folders.render(facts);
        String plain = name.render(facts);
        String path;
        do {
            path = folder + "/" + ClashNumber.on(plain, nextNumber(ClashNumber.key(folder + "/" + plain)));
        } while (files.taken(path) || Files.exists(store.resolve(path), LinkOption.NOFOLLOW_LINKS));
        return path;
    }

    private int nextNumber(String key) {
        synchronized (numbers) {
            return numbers.merge(key, 1, Integer::sum);
        }
    }
}
