package oakbasket.server.web;

import jakarta.servlet.http.HttpServletRequest;
import java.net.URI;
import oakbasket.server.Settings;

/** Where people reach this server. */
public final class PublicAddress {

    private PublicAddress() {
    }

    /** The address that links begin with, without a slash at the end; where none is set, the one this request came to. */
    public static String of(Settings settings, HttpServletRequest request) {
        URI address = settings.publicAddress();
        return address != null ? address.toString().replaceAll("/+$", "") : request.getScheme() + "://" + request.getHeader("Host");
    }
}
