package oakbasket.server.web;

import jakarta.servlet.http.HttpServletRequest;
import java.net.Inet6Address;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.Arrays;
import java.util.HexFormat;

/** Who calls, as limits count it: an address; of IPv6 the network of 64 bits that one household or phone has all of (RFC 6177, RFC 7934). */
public final class Caller {

    private static final int NETWORK_BYTES = 8;

    private Caller() {
    }

    /** The caller of a request. Behind a proxy it is known only with {@code server.forward-headers-strategy=native}. */
    public static String of(HttpServletRequest request) {
        return of(request.getRemoteAddr());
    }

    /** The address of the caller itself, for people to read (of IPv6 with the first of its zeros left out, RFC 5952, 4.2). */
    public static String address(HttpServletRequest request) {
        String address = request.getRemoteAddr().replace("[", "").replace("]", "");
        try {
            return address.indexOf(':') < 0 ? address : InetAddress.getByName(address).getHostAddress().replaceFirst("(?:^|:)0(?::0)+(?::|$)", "::");
        } catch (UnknownHostException notAnAddress) {
            return address;
        }
    }

    /** What an address counts as. */
    static String of(String address) {
        if (address.indexOf(':') < 0) {
            return address;
        }
        try {
            InetAddress parsed = InetAddress.getByName(address.replace("[", "").replace("]", ""));
            return parsed instanceof Inet6Address ? HexFormat.of().formatHex(Arrays.copyOf(parsed.getAddress(), NETWORK_BYTES)) + "/64" : parsed.getHostAddress();
        } catch (UnknownHostException notAnAddress) {
            return address;
        }
    }
}
