package oakbasket.server.mail;

import java.util.Optional;

/** Hands letters to whoever carries them: a mail server, or the stand-in that puts them into a folder. */
public interface Mailer {

    /**
     * Hands one letter over; returns when it was taken.
     *
     * @throws MailTrouble when it was not
     */
    void send(OutgoingMail mail) throws MailTrouble;

    /** Whether letters can be handed over at present, without sending any. @throws MailTrouble saying in words what is wrong */
    void check() throws MailTrouble;

    /** Whether addresses with other letters than ASCII before the @ are carried (SMTPUTF8, RFC 6531); empty when that cannot be asked at present. */
    Optional<Boolean> carriesUtf8();

    /** The mail server; empty for the stand-in. */
    String server();
}
