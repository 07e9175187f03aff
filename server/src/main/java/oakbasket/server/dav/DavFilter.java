package oakbasket.server.dav;

import jakarta.servlet.FilterChain;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.URLDecoder;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import javax.xml.stream.XMLStreamException;
import oakbasket.server.account.AccountService;
import oakbasket.server.account.TakenByProgram;
import oakbasket.server.apppassword.AppPasswords;
import oakbasket.server.problem.Problem;
import oakbasket.server.sharing.Sharing;
import oakbasket.server.storage.Acting;
import oakbasket.server.web.Caller;
import oakbasket.server.web.ProblemWriter;
import oakbasket.server.web.RangedAnswer;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.util.UriUtils;

/**
 * Answers everything below {@code /dav}: PROPFIND, GET, HEAD and OPTIONS; whatever would change something is refused. It stands before the filters of the desk: the
 * methods are not theirs, and whoever calls has an app password and no session.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 30)
class DavFilter extends OncePerRequestFilter {

    private static final String PREFIX = "/dav";
    private static final Set<String> CHANGING = Set.of("PUT", "DELETE", "MKCOL", "MOVE", "COPY", "PROPPATCH", "LOCK", "UNLOCK", "POST", "PATCH");
    private static final String ALLOWED = "OPTIONS, GET, HEAD, PROPFIND";
    private static final int MOST_BODY = 64 * 1024;
    private static final int BUFFER = 1 << 17;

    private final DavTree tree;
    private final AppPasswords passwords;
    private final Sharing sharing;
    private final AccountService accounts;
    private final ApplicationEventPublisher events;
    private final ProblemWriter problems;

    DavFilter(DavTree tree, AppPasswords passwords, Sharing sharing, AccountService accounts, ApplicationEventPublisher events, ProblemWriter problems) {
        this.accounts = accounts;
        this.events = events;
        this.sharing = sharing;
        this.tree = tree;
        this.passwords = passwords;
        this.problems = problems;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        String path = request.getRequestURI();
        return !path.equals(PREFIX) && !path.startsWith(PREFIX + "/");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws IOException {
        response.setHeader("Cache-Control", "private, no-cache");
        try {
            Long account = account(request);
            if (account == null) {
                response.setHeader("WWW-Authenticate", "Basic realm=\"Oak Basket\", charset=\"UTF-8\"");
                problems.write(Problem.of(Problem.Kind.SIGN_IN_NEEDED, "app-password-needed"), response);
                return;
            }
            Acting.begin(sharing.acting(account));
            answer(request, response);
        } catch (Problem refused) {
            if (refused.retryAfterSeconds() > 0) {
                response.setHeader("Retry-After", Long.toString(refused.retryAfterSeconds()));
            }
            problems.write(refused, response);
        } finally {
            Acting.end();
        }
    }

    private @Nullable Long account(HttpServletRequest request) {
        String header = request.getHeader("Authorization");
        if (header == null || !header.regionMatches(true, 0, "Basic ", 0, 6)) {
            return null;
        }
        String said;
        try {
            said = new String(Base64.getDecoder().decode(header.substring(6).strip()), StandardCharsets.UTF_8);
        } catch (IllegalArgumentException wrong) {
            return null;
        }
        int colon = said.indexOf(':');
        return colon > 0 ? Acting.asOffice(() -> passwords.check(said.substring(0, colon), said.substring(colon + 1), Caller.of(request))) : null;
    }

    private void answer(HttpServletRequest request, HttpServletResponse response) throws IOException {
        String method = request.getMethod().toUpperCase(Locale.ROOT);
        response.setHeader("DAV", "1");
        if (method.equals("OPTIONS")) {
            response.setHeader("Allow", ALLOWED);
            response.setStatus(HttpServletResponse.SC_OK);
            return;
        }
        if (CHANGING.contains(method)) {
            throw Problem.of(Problem.Kind.FORBIDDEN, "dav-read-only");
        }
        List<String> segments = segments(request.getRequestURI());
        Optional<DavTree.Node> found = tree.find(segments);
        if (found.isEmpty()) {
            throw Problem.notFound("not-found");
        }
        switch (method) {
            case "PROPFIND" -> {
                told(request, "");
                propfind(request, response, segments, found.get());
            }
            case "GET", "HEAD" -> {
                if (method.equals("GET") && !found.get().folder()) {
                    told(request, String.join("/", segments));
                }
                send(request, response, found.get(), segments);
            }
            default -> {
                response.setHeader("Allow", ALLOWED);
                response.sendError(HttpServletResponse.SC_METHOD_NOT_ALLOWED);
            }
        }
    }

    private void told(HttpServletRequest request, String path) {
        Acting.Who who = Acting.who();
        if (who != null) {
            events.publishEvent(new TakenByProgram(accounts.current(who.account()), Caller.address(request), path));
        }
    }

    private static List<String> segments(String uri) {
        List<String> segments = new ArrayList<>();
        try {
            for (String segment : DavTree.segments(uri.substring(PREFIX.length()))) {
                segments.add(URLDecoder.decode(segment.replace("+", "%2B"), StandardCharsets.UTF_8));
            }
        } catch (IllegalArgumentException wrong) {
            throw Problem.unreadable("unreadable");
        }
        return segments;
    }

    private static String href(List<String> segments, boolean folder) {
        StringBuilder href = new StringBuilder(PREFIX);
        segments.forEach(segment -> href.append('/').append(UriUtils.encodePathSegment(segment, StandardCharsets.UTF_8)));
        return folder ? href.append('/').toString() : href.toString();
    }

    private void propfind(HttpServletRequest request, HttpServletResponse response, List<String> segments, DavTree.Node node) throws IOException {
        String depth = Objects.requireNonNullElse(request.getHeader("Depth"), "infinity").strip();
        if (!depth.equals("0") && !depth.equals("1")) {
            response.setStatus(HttpServletResponse.SC_FORBIDDEN);
            response.setContentType("application/xml;charset=UTF-8");
            try {
                PropfindXml.writeError(response.getOutputStream(), "propfind-finite-depth");
            } catch (XMLStreamException broken) {
                throw new IOException(broken);
            }
            return;
        }
        byte[] body = request.getInputStream().readNBytes(MOST_BODY + 1);
        if (body.length > MOST_BODY) {
            throw Problem.of(Problem.Kind.TOO_LARGE, "body-too-large", MOST_BODY);
        }
        try {
            PropfindXml.Asked asked;
            try {
                asked = PropfindXml.read(new ByteArrayInputStream(body), body.length == 0);
            } catch (XMLStreamException | RuntimeException wrong) {
                throw Problem.unreadable("unreadable");
            }
            response.setStatus(207);
            response.setContentType("application/xml;charset=UTF-8");
            PropfindXml xml = new PropfindXml(response.getOutputStream(), asked);
            xml.tell(href(segments, node.folder()), node);
            if (depth.equals("1") && node.folder()) {
                try (Stream<DavTree.Node> children = tree.children(segments, node)) {
                    for (Iterator<DavTree.Node> each = children.iterator(); each.hasNext();) {
                        DavTree.Node child = each.next();
                        List<String> inner = new ArrayList<>(segments);
                        inner.add(child.name());
                        xml.tell(href(inner, child.folder()), child);
                    }
                }
            }
            xml.end();
        } catch (XMLStreamException broken) {
            throw new IOException(broken);
        }
    }

    /** By the same code as every other answer that can be had from any byte on (RFC 9110, 13 and 14). */
    private void send(HttpServletRequest request, HttpServletResponse response, DavTree.Node node, List<String> segments) throws IOException {
        Path path = node.path();
        if (node.folder() || path == null) {
            response.setHeader("Allow", ALLOWED);
            response.sendError(HttpServletResponse.SC_METHOD_NOT_ALLOWED);
            return;
        }
        RangedAnswer what = RangedAnswer.of(request, node.bytes(), node.tag().replace("\"", ""));
        if (request.getHeader("If-None-Match") == null && notChangedSince(request, node)) {
            what = new RangedAnswer(HttpStatus.NOT_MODIFIED, node.bytes(), 0, 0, what.tag());
        }
        if (what.sends()) {
            tree.leaves(segments, node);
        }
        response.setDateHeader("Last-Modified", node.changedAt().toEpochMilli());
        response.setHeader("Content-Disposition", "attachment");
        if (what.status().is2xxSuccessful()) {
            response.setContentType(PropfindXml.mediaType(node.name()));
        }
        what.head(response);
        if (what.sends()) {
            copy(path, what.from(), what.to(), response.getOutputStream());
        }
    }

    private static boolean notChangedSince(HttpServletRequest request, DavTree.Node node) {
        try {
            long since = request.getDateHeader("If-Modified-Since");
            return since >= 0 && node.changedAt().getEpochSecond() <= Instant.ofEpochMilli(since).getEpochSecond();
        } catch (IllegalArgumentException noDate) {
            return false;
        }
    }

    private static void copy(Path path, long from, long to, OutputStream out) throws IOException {
        ByteBuffer buffer = ByteBuffer.allocate(BUFFER);
        try (FileChannel channel = FileChannel.open(path, StandardOpenOption.READ)) {
            for (long at = from; at < to;) {
                buffer.clear().limit((int) Math.min(BUFFER, to - at));
                int read = channel.read(buffer, at);
                if (read < 0) {
                    throw new IOException("A file is shorter than it was");
                }
                out.write(buffer.array(), 0, read);
                at += read;
            }
        }
    }
}
