package oakbasket.core.link;

import java.net.IDN;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import oakbasket.core.fault.FaultyValue;

/** A web site as browsers tell sites apart: scheme, host and port (RFC 6454), and nothing after them. */
public final class FrameOrigin {

    /** How many sites a round may have. */
    public static final int MOST = 20;

    private static final int LONGEST = 260;
    private static final Pattern SHAPE = Pattern.compile("(https?)://([^/?#:@\\s\\[\\]]+)(:[0-9]{1,5})?/?", Pattern.CASE_INSENSITIVE);
    private static final Pattern HOST = Pattern.compile("[a-z0-9]([a-z0-9-]*[a-z0-9])?(\\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)*");

    private FrameOrigin() {
    }

    /**
     * The origin that was typed, in the one form browsers compare: small letters, the host in ASCII, no standard port, no slash.
     *
     * @throws FaultyValue when it is none; a path, a wildcard or a name without a scheme is none
     */
    public static String of(String typed) {
        String text = typed.strip();
        Matcher parts = SHAPE.matcher(text);
        if (text.length() > LONGEST || !parts.matches()) {
            throw new FaultyValue("frame-origin");
        }
        String scheme = parts.group(1).toLowerCase(Locale.ROOT);
        String host = ascii(parts.group(2)).toLowerCase(Locale.ROOT);
        String port = parts.group(3) == null ? "" : parts.group(3);
        if (!HOST.matcher(host).matches() || !port.isEmpty() && Integer.parseInt(port.substring(1)) > 65_535) {
            throw new FaultyValue("frame-origin");
        }
        boolean standard = port.equals(scheme.equals("https") ? ":443" : ":80");
        return scheme + "://" + host + (standard ? "" : port);
    }

    private static String ascii(String host) {
        try {
            return IDN.toASCII(host);
        } catch (IllegalArgumentException notAHost) {
            throw new FaultyValue("frame-origin");
        }
    }
}
