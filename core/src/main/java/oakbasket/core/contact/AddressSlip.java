package oakbasket.core.contact;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import oakbasket.core.identity.MailAddress;

/**
 * Obvious slips of the keyboard in the part after the @. A slip is only ever suggested: the address stays as typed until a person says otherwise.
 * Which endings are well known is common practice, no source.
 */
public final class AddressSlip {

    private static final List<String> WELL_KNOWN = List.of("gmail.com", "googlemail.com", "hotmail.com", "hotmail.co.uk", "outlook.com", "live.com", "live.co.uk",
            "yahoo.com", "yahoo.co.uk", "icloud.com", "btinternet.com", "aol.com", "gmx.de", "gmx.net", "web.de", "orange.fr", "wanadoo.fr", "protonmail.com");
    private static final Map<String, String> ENDINGS = Map.ofEntries(Map.entry("con", "com"), Map.entry("cmo", "com"), Map.entry("ocm", "com"),
            Map.entry("vom", "com"), Map.entry("comm", "com"), Map.entry("ogr", "org"), Map.entry("orgg", "org"), Map.entry("rog", "org"), Map.entry("nte", "net"),
            Map.entry("nett", "net"), Map.entry("ner", "net"));
    private static final int SHORTEST_COMPARED = 7;

    private AddressSlip() {
    }

    /** The address that was probably meant; empty when nothing looks wrong. */
    public static Optional<String> suggestion(MailAddress address) {
        String text = address.text();
        String local = text.substring(0, text.lastIndexOf('@') + 1);
        String domain = text.substring(local.length()).toLowerCase(Locale.ROOT);
        return meant(domain).filter(better -> !better.equals(domain)).map(better -> local + better);
    }

    private static Optional<String> meant(String domain) {
        if (WELL_KNOWN.contains(domain)) {
            return Optional.empty();
        }
        String mended = mendedEnding(domain);
        if (!mended.equals(domain)) {
            return Optional.of(nearWellKnown(mended).orElse(mended));
        }
        return nearWellKnown(domain);
    }

    private static String mendedEnding(String domain) {
        String ending = domain.substring(domain.lastIndexOf('.') + 1);
        if (domain.endsWith(".co.ul") || domain.endsWith(".co.ukk")) {
            return domain.substring(0, domain.lastIndexOf('.')) + ".uk";
        }
        return domain.substring(0, domain.length() - ending.length()) + ENDINGS.getOrDefault(ending, ending);
    }

    private static Optional<String> nearWellKnown(String domain) {
        if (domain.length() < SHORTEST_COMPARED) {
            return Optional.empty();
        }
        return WELL_KNOWN.stream().filter(known -> known.length() >= SHORTEST_COMPARED && oneSlipApart(domain, known)).findFirst();
    }

    /** Whether one letter left out, doubled, replaced, or two neighbours swapped turns one into the other; the very first letter is taken as meant. */
    private static boolean oneSlipApart(String typed, String known) {
        if (typed.charAt(0) != known.charAt(0) || Math.abs(typed.length() - known.length()) > 1) {
            return false;
        }
        int from = 0;
        while (from < Math.min(typed.length(), known.length()) && typed.charAt(from) == known.charAt(from)) {
            from++;
        }
        String one = typed.substring(from);
        String other = known.substring(from);
        return one.isEmpty() && other.isEmpty()
                || one.length() > other.length() && one.substring(1).equals(other)
                || other.length() > one.length() && other.substring(1).equals(one)
                || one.length() == other.length() && (one.substring(1).equals(other.substring(1))
                        || one.length() > 1 && one.charAt(0) == other.charAt(1) && one.charAt(1) == other.charAt(0) && one.substring(2).equals(other.substring(2)));
    }
}
