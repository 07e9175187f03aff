package oakbasket.server.http;

import java.util.Arrays;
import oakbasket.server.Settings;
import oakbasket.server.web.ProblemWriter;
import org.eclipse.jetty.http.UriCompliance;
import org.eclipse.jetty.server.Connector;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.HttpConfiguration;
import org.eclipse.jetty.server.HttpConnectionFactory;
import org.eclipse.jetty.server.Server;
import org.eclipse.jetty.server.ServerConnector;
import org.eclipse.jetty.server.handler.ThreadLimitHandler;
import org.eclipse.jetty.server.handler.gzip.GzipHandler;
import org.springframework.boot.jetty.servlet.JettyServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.core.Ordered;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;

/**
 * Puts this package's parts before the capabilities, from the outside in: headers, requests under way, rates, assets, small bodies, threads of one caller.
 * Why this container and these numbers: docs/decisions, "The servlet container".
 */
@Component
class JettyConfig implements WebServerFactoryCustomizer<JettyServletWebServerFactory>, Ordered {

    /** What the server reads at a time; a buffer is taken from the pool only while there is something to read. */
    private static final int READ_BYTES = 64 * 1024;
    private static final int LONGEST_REQUEST_HEAD = 12 * 1024;
    /** How many requests of one caller are at work at the same moment; more of them wait. */
    private static final int THREADS_PER_CALLER = 48;
    /** Below this many bytes compression costs more than it spares. */
    private static final int SMALLEST_COMPRESSED = 1024;

    private final Settings settings;
    private final ProblemWriter problems;
    private final Environment environment;

    JettyConfig(Settings settings, ProblemWriter problems, Environment environment) {
        this.settings = settings;
        this.problems = problems;
        this.environment = environment;
    }

    /** After Spring's own, which makes the handlers that these go around. */
    @Override
    public int getOrder() {
        return Ordered.LOWEST_PRECEDENCE;
    }

    @Override
    public void customize(JettyServletWebServerFactory factory) {
        factory.getSettings().getSession().getCookie().setSecure(settings.https());
        factory.addServerCustomizers(this::guard);
    }

    private void guard(Server server) {
        boolean proxied = !"none".equalsIgnoreCase(environment.getProperty("server.forward-headers-strategy", "none"));
        Refusals refusals = new Refusals(problems);
        ThreadLimitHandler threads = new ThreadLimitHandler(compressing(server.getHandler()), proxied ? "X-Forwarded-For" : null, false);
        threads.setThreadLimit(THREADS_PER_CALLER);
        Handler assets = new AssetsInMemory(new ReadableHeaders(new SmallBodies(new FileConnector.Told(threads), refusals), refusals));
        RequestsUnderWay underWay = new RequestsUnderWay(new LingeringBodies(new MinimumRates(assets)), server.getScheduler());
        ProtectingHeaders headers = new ProtectingHeaders(underWay, settings.https());
        refusals.carry(headers);
        server.setHandler(headers);
        server.setErrorHandler(refusals);
        CallerConnections connections = new CallerConnections(settings.connections(), proxied ? settings.connections() : settings.connectionsPerCaller());
        server.setConnectors(Arrays.stream(server.getConnectors()).map(connector -> connector.getClass() == ServerConnector.class ? new FileConnector((ServerConnector) connector) : connector).toArray(Connector[]::new));
        for (Connector connector : server.getConnectors()) {
            ((org.eclipse.jetty.util.component.Container) connector).addBean(connections);
            ((org.eclipse.jetty.util.component.Container) connector).addBean(underWay, false);
            configure(connector.getConnectionFactory(HttpConnectionFactory.class).getHttpConfiguration());
        }
    }

    /**
     * Compresses answers. Not by the newer handler that Spring Boot would take: of Jetty 12.1.14 it was seen, on the first answer of a process, to send the
     * ten bytes of the gzip head, then the end, and so an empty page that looked whole.
     */
    private static Handler compressing(Handler answers) {
        GzipHandler gzip = new GzipHandler(answers);
        gzip.setMinGzipSize(SMALLEST_COMPRESSED);
        gzip.setIncludedMethods("GET", "POST");
        gzip.setIncludedMimeTypes("application/json", "application/problem+json", "text/html", "text/css", "image/svg+xml");
        return gzip;
    }

    private static void configure(HttpConfiguration http) {
        http.setSendServerVersion(false);
        http.setSendXPoweredBy(false);
        http.setRequestHeaderSize(LONGEST_REQUEST_HEAD);
        http.setInputBufferSize(READ_BYTES);
        http.setUriCompliance(UriCompliance.DEFAULT);
    }
}
