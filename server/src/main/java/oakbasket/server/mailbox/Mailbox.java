package oakbasket.server.mailbox;

import java.io.IOException;
import java.io.InputStream;

/** A mailbox that is read from time to time. */
public interface Mailbox {

    /** Knows what was taken before. */
    interface Taken {
        /** The highest number of a message that was taken from a folder; 0 where none was. @param folder with the validity of its numbers (RFC 9051, 2.3.1.1) */
        long last(String folder);
    }

    /** Takes messages, each once. */
    interface Taker {
        /**
         * Takes one; when this returns it lies safe and the mailbox may forget it.
         *
         * @param size in bytes, as the mailbox says; what comes may be another number
         * @param message as it came, to be read as far as it is wanted
         */
        void take(String folder, long number, long size, InputStream message) throws IOException;
    }

    /**
     * Gives what is new to the taker, the oldest first.
     *
     * @param most how many at most
     * @throws MailboxTrouble when it cannot be read; what was taken before stays taken
     */
    void read(Taken taken, Taker taker, int most) throws MailboxTrouble;

    /** Whether it can be read at present. @throws MailboxTrouble when it cannot */
    void check() throws MailboxTrouble;
}
