package oakbasket.server.scan;

import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.net.UnixDomainSocketAddress;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import oakbasket.server.Settings;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Chooses who looks for malware: clamd where {@code oakbasket.scanner} names one, else the stand-in. */
@Configuration(proxyBeanMethods = false)
class ScanConfig {

    private static final Pattern HOST_AND_PORT = Pattern.compile("(\\S+):(\\d{1,5})");

    @Bean
    Scanner scanner(Settings settings) {
        String where = settings.scanner();
        return where.isBlank() ? new StandInScanner() : new ClamdScanner(address(where.strip()), settings.scannerPatience());
    }

    private static SocketAddress address(String where) {
        Matcher tcp = HOST_AND_PORT.matcher(where);
        if (where.startsWith("/")) {
            return UnixDomainSocketAddress.of(Path.of(where));
        }
        if (tcp.matches() && Integer.parseInt(tcp.group(2)) <= 65_535) {
            return new InetSocketAddress(tcp.group(1), Integer.parseInt(tcp.group(2)));
        }
        throw new IllegalStateException("The setting oakbasket.scanner must name clamd, as host:port or as the path of its socket, such as /run/clamav/clamd.ctl; it is “" + where + "”");
    }
}
