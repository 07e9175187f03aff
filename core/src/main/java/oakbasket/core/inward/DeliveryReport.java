package oakbasket.core.inward;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a mail server reports of one recipient of a letter (RFC 3464).
 *
 * @param failed whether it will not be delivered; else it is only late
 * @param status the enhanced status code (RFC 3463), such as {@code 5.1.1}; empty where none is given
 * @param recipient whom it was for; empty where that is not said
 * @param words what the server said, for people
 */
public record DeliveryReport(boolean failed, String status, String recipient, String words) {

    private static final int LONGEST_WORDS = 300;
    private static final int MOST_RECIPIENTS = 50;
    private static final int LONGEST_READ = 100_000;
    private static final Pattern STATUS = Pattern.compile("\\b([245]\\.\\d{1,3}\\.\\d{1,3})\\b");
    /** A reply of SMTP (RFC 5321, 4.2.1) with what follows it in the line. */
    private static final Pattern REPLY = Pattern.compile("\\b([45]\\d\\d)[ -]((?:[245]\\.\\d{1,3}\\.\\d{1,3})?[^\\n]*)");
    private static final Pattern DELAY = Pattern.compile("delayed|will (keep|continue) (trying|retrying)|will be retried|warning message only|not yet been delivered|still being retried", Pattern.CASE_INSENSITIVE);

    /**
     * The recipients of a {@code message/delivery-status} that were not reached, or not yet (RFC 3464, 2.3). What was delivered, relayed or expanded is left out.
     */
    public static List<DeliveryReport> ofFields(String text) {
        List<DeliveryReport> reports = new ArrayList<>();
        String unix = cut(text).replace("\r\n", "\n").replaceAll("\n[ \t]+", " ");
        for (String group : unix.split("\n\\s*\n")) {
            String action = field(group, "Action").toLowerCase(Locale.ROOT);
            if ((action.equals("failed") || action.equals("delayed")) && reports.size() < MOST_RECIPIENTS) {
                String said = afterType(field(group, "Diagnostic-Code"));
                Matcher status = STATUS.matcher(field(group, "Status"));
                reports.add(new DeliveryReport(action.equals("failed"), status.find() ? status.group(1) : "", afterType(field(group, "Final-Recipient")), brief(said.isEmpty() ? field(group, "Status") : said)));
            }
        }
        return reports;
    }

    /** What servers write that know no such fields: the first reply or status in the text decides (common practice, no source). Empty where there is none. */
    public static Optional<DeliveryReport> ofPlain(String text) {
        String read = cut(text);
        Matcher reply = REPLY.matcher(read);
        Matcher status = STATUS.matcher(read);
        boolean replied = reply.find();
        boolean coded = status.find();
        if (!replied && !coded) {
            return Optional.empty();
        }
        String code = coded ? status.group(1) : "";
        boolean late = DELAY.matcher(read).find();
        boolean permanent = replied ? reply.group(1).startsWith("5") : code.startsWith("5");
        return Optional.of(new DeliveryReport(permanent || !late, code, "", brief(replied ? reply.group() : code)));
    }

    private static String field(String group, String name) {
        for (String line : group.split("\n")) {
            if (line.regionMatches(true, 0, name + ":", 0, name.length() + 1)) {
                return line.substring(name.length() + 1).strip();
            }
        }
        return "";
    }

    /** Without the type in front, such as {@code smtp;}. */
    private static String afterType(String value) {
        int type = value.indexOf(';');
        return value.substring(type + 1).strip();
    }

    private static String cut(String text) {
        return text.length() <= LONGEST_READ ? text : text.substring(0, LONGEST_READ);
    }

    private static String brief(String said) {
        String plain = said.replaceAll("\\s+", " ").strip();
        return plain.length() <= LONGEST_WORDS ? plain : plain.substring(0, LONGEST_WORDS) + "…";
    }
}
