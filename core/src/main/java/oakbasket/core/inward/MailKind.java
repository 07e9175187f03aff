package oakbasket.core.inward;

import java.util.Locale;
import java.util.regex.Pattern;

/** Who or what wrote a message. Only what a person wrote is ever answered (RFC 3834, 2). */
public enum MailKind {
    /** Somebody wrote it. */
    PERSON,
    /** A mail server reports what became of a letter. */
    REPORT,
    /** A program wrote it, such as an out-of-office reply. */
    AUTOMATIC,
    /** It came by a mailing list. */
    LIST,
    /** It is one of our own, come back, or has gone round in a circle. */
    LOOP;

    /** More servers than this are in no honest way (RFC 5321, 6.3, asks for a limit of at least 100 before a server refuses; an answer is refused earlier). */
    static final int MOST_SERVERS = 50;
    /** What programs write that do not say so elsewhere (common practice, no source). */
    private static final Pattern PROGRAM = Pattern.compile("(mailer-daemon|postmaster|no-?reply|do-?not-?reply|bounces?|auto-?reply)([+-].*)?@.*");
    private static final Pattern REPORTING = Pattern.compile("(mailer-daemon|postmaster|mail-daemon)([+-].*)?@.*");
    private static final Pattern REPORT_SUBJECT = Pattern.compile("undeliver|delivery (status notification|has failed|failure)|returned mail|failure notice|mail delivery (failed|system|subsystem)|delivery delayed|not delivered|unzustellbar");
    private static final Pattern OUT_OF_OFFICE = Pattern.compile("^(auto(matic|mated)?[ -]?(reply|response)|out of (the )?office|automatische antwort|abwesenheit|réponse automatique|respuesta automática|automatyczna odpowiedź|رد تلقائي)");

    /**
     * Sorts a message.
     *
     * @param from the address it says it is from; empty where it says none
     * @param own whether that is an address of ours
     */
    public static MailKind of(MailHeaders headers, String from, boolean own) {
        String type = lower(headers.first("Content-Type"));
        String sender = lower(from);
        String subject = lower(headers.first("Subject"));
        boolean nobody = headers.all("Return-Path").stream().anyMatch(path -> path.replace(" ", "").equals("<>"));
        if (type.startsWith("multipart/report") && type.contains("delivery-status") || REPORTING.matcher(sender).matches() && REPORT_SUBJECT.matcher(subject).find()) {
            return REPORT;
        }
        if (own || headers.all("Received").size() > MOST_SERVERS) {
            return LOOP;
        }
        // RFC 2919; RFC 2369.
        if (headers.has("List-Id") || headers.has("List-Post") || lower(headers.first("Precedence")).equals("list")) {
            return LIST;
        }
        String submitted = lower(headers.first("Auto-Submitted"));
        boolean says = !submitted.isEmpty() && !submitted.startsWith("no") || headers.has("X-Autoreply") || headers.has("X-Autorespond") || headers.has("X-Auto-Response-Suppress")
                || Pattern.matches("bulk|junk|auto_reply", lower(headers.first("Precedence")));
        return says || nobody || sender.isEmpty() || PROGRAM.matcher(sender).matches() || OUT_OF_OFFICE.matcher(subject).find() ? AUTOMATIC : PERSON;
    }

    private static String lower(String text) {
        return text.toLowerCase(Locale.ROOT).strip();
    }
}
