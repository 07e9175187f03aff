package oakbasket.core.inward;

import java.util.Locale;
import java.util.Set;

/** What something that is attached to a message is, before anybody looks whose it is: the one gate through which papers come by mail. */
public enum MailedPart {
    /** Somebody may have sent it as a paper. */
    PAPER,
    /** Only a person can tell what to do with it: it waits in the tray and is never filed by itself. */
    FOR_THE_TRAY,
    /** It belongs to the message and is no paper: a signature, a receipt, a picture in the text. It stays in the message. */
    NO_PAPER;

    /** RFC 8551, 3.2 and 3.5; RFC 3156, 4 and 5. */
    private static final Set<String> SIGNATURES = Set.of("application/pkcs7-signature", "application/x-pkcs7-signature", "application/pgp-signature", "application/pgp-keys");
    private static final Set<String> ENCRYPTED = Set.of("application/pkcs7-mime", "application/x-pkcs7-mime", "application/pgp-encrypted");
    /** RFC 8098 (read receipts), RFC 3464 (delivery notices), RFC 5965 (complaints), RFC 3462 (headers alone), RFC 6350 (contact cards). */
    private static final Set<String> NOTICES = Set.of("message/disposition-notification", "message/delivery-status", "message/feedback-report", "text/rfc822-headers", "text/vcard", "text/x-vcard", "text/directory",
            "application/vcard");
    /** RFC 5546, 1.4: what answers an invitation. */
    private static final Set<String> ANSWERING = Set.of("REPLY", "COUNTER", "DECLINECOUNTER", "REFRESH");
    private static final Set<String> SIGNATURE_ENDINGS = Set.of("p7s", "asc", "sig");
    private static final Set<String> ENCRYPTED_ENDINGS = Set.of("p7m", "pgp", "gpg");

    /**
     * What stands about a part.
     *
     * @param type its media type, in small letters
     * @param ending the ending of its name, in small letters; empty where it has none
     * @param calendarMethod of a calendar, what it does (RFC 5546); empty where it does nothing
     * @param shownInText whether the text of the message shows it (RFC 2392, cid)
     * @param seenBefore whether the same bytes came in another message of this sender and were no paper then, as a logo does under each of somebody's messages
     */
    public record Facts(String type, String ending, String calendarMethod, boolean shownInText, boolean seenBefore) {

        public Facts {
            type = type.toLowerCase(Locale.ROOT);
            ending = ending.toLowerCase(Locale.ROOT);
            calendarMethod = calendarMethod.toUpperCase(Locale.ROOT);
        }
    }

    /** Sorts a part. */
    public static MailedPart of(Facts part) {
        boolean picture = part.type().startsWith("image/");
        boolean calendar = part.type().equals("text/calendar") || part.type().equals("application/ics") || part.ending().equals("ics");
        if (SIGNATURES.contains(part.type()) || SIGNATURE_ENDINGS.contains(part.ending()) || NOTICES.contains(part.type()) || part.ending().equals("vcf") || picture && (part.shownInText() || part.seenBefore())
                || calendar && ANSWERING.contains(part.calendarMethod())) {
            return NO_PAPER;
        }
        return ENCRYPTED.contains(part.type()) || ENCRYPTED_ENDINGS.contains(part.ending()) || part.type().equals("message/rfc822") || calendar ? FOR_THE_TRAY : PAPER;
    }
}
