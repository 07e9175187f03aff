package oakbasket.server.inward;

import java.io.FileOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Clock;
import java.util.Arrays;
import java.util.HexFormat;
import oakbasket.server.mailbox.Mailbox;
import oakbasket.server.mailbox.MailboxTrouble;
import oakbasket.server.security.Hash;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Takes messages out of the mailbox: each lies flushed on the disk and is on record before the mailbox is told that it was seen. */
@Service
public class Collecting {

    /** Larger messages are not read; their senders are told. */
    static final long MOST_BYTES = 64L << 20;
    /** What is kept of the beginning of a larger one, for its header. */
    private static final int BEGINNING = 256 << 10;
    /** With more that waits to be dealt with, the mailbox keeps the rest. */
    private static final int MOST_WAITING = 200;
    private static final int KEY_BYTES = 12;
    private static final Logger LOG = LoggerFactory.getLogger(Collecting.class);

    private final ObjectProvider<Mailbox> mailbox;
    private final InwardTable table;
    private final Dealing dealing;
    private final DataFolder folder;
    private final Transactions transactions;
    private final Words words;
    private final Clock clock;
    private volatile String trouble = "";

    Collecting(ObjectProvider<Mailbox> mailbox, InwardTable table, Dealing dealing, DataFolder folder, Transactions transactions, Words words, Clock clock) {
        this.mailbox = mailbox;
        this.table = table;
        this.dealing = dealing;
        this.folder = folder;
        this.transactions = transactions;
        this.words = words;
        this.clock = clock;
    }

    /** Whether a mailbox is read at all. */
    public boolean reads() {
        return mailbox.getIfAvailable() != null;
    }

    /** Why it cannot be read at present; empty when it can. */
    public String trouble() {
        return trouble;
    }

    /** Takes what is new, and deals with what was taken. */
    @Scheduled(initialDelayString = "${oakbasket.inward-first:PT5S}", fixedDelayString = "${oakbasket.inward-every:PT20S}")
    public void look() {
        Acting.officeDoes(this::takeAndDeal);
    }

    private synchronized void takeAndDeal() {
        Mailbox read = mailbox.getIfAvailable();
        int room = MOST_WAITING - table.countTaken();
        if (read != null && room > 0) {
            try {
                read.read(table::last, this::take, room);
                trouble = "";
            } catch (MailboxTrouble problem) {
                trouble = words.of(problem.reason());
                LOG.warn("The mailbox cannot be read: {}", trouble);
            }
        }
        dealing.dealWithAll();
    }

    private void take(String key, long number, long size, InputStream message) throws IOException {
        String name = HexFormat.of().formatHex(Arrays.copyOf(Hash.of(key), KEY_BYTES)) + "-" + number + ".eml";
        Path part = folder.postIn().resolve(name + ".part");
        long most = size > MOST_BYTES ? BEGINNING : MOST_BYTES;
        long bytes = 0;
        boolean whole = size <= MOST_BYTES;
        try (FileOutputStream out = new FileOutputStream(part.toFile())) {
            DataFolder.forTheServerAlone(part, "rw-------");
            byte[] buffer = new byte[BEGINNING];
            for (int read = message.read(buffer); read >= 0; read = message.read(buffer)) {
                int wanted = (int) Math.min(read, most - bytes);
                out.write(buffer, 0, wanted);
                bytes += wanted;
                if (wanted < read) {
                    whole = false;
                    break;
                }
            }
            out.getFD().sync();
        }
        Files.move(part, folder.postIn().resolve(name), StandardCopyOption.ATOMIC_MOVE);
        long kept = whole ? bytes : Math.max(size, bytes);
        boolean all = whole;
        transactions.durably(() -> table.insert(key, number, name, kept, all, clock.instant()));
    }

    /** For a test of the mailbox: whether it can be read, in words; empty when it can. Null where none is read. */
    public @Nullable String checked() {
        Mailbox read = mailbox.getIfAvailable();
        if (read == null) {
            return null;
        }
        try {
            read.check();
            return "";
        } catch (MailboxTrouble problem) {
            return words.of(problem.reason());
        }
    }
}
