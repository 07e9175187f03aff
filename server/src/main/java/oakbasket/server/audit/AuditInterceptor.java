package oakbasket.server.audit;

import jakarta.servlet.DispatcherType;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import oakbasket.core.audit.AuditKind;
import oakbasket.server.account.Account;
import oakbasket.server.security.Needs;
import oakbasket.server.security.Noted;
import oakbasket.server.web.Caller;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.AnnotatedElementUtils;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.AsyncHandlerInterceptor;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Notes what people of the office do: each change, and each look at or copy of papers and people. What lists and settings show is not noted. */
@Component
@Order(1)
class AuditInterceptor implements AsyncHandlerInterceptor, WebMvcConfigurer {

    private static final String SUBJECT = AuditInterceptor.class.getName();
    private static final int LONGEST_QUERY = 120;
    /** What a copy is taken of. */
    private static final Set<String> TAKING = Set.of("/api/files/{id}", "/api/files.zip", "/api/contacts.csv", "/api/contacts.vcf", "/api/rounds/{id}/table.csv", "/api/rounds/{id}/table.xlsx", "/api/rounds/{id}/files.csv",
            "/api/rounds/{id}/files.xlsx", "/api/sets/{round}/set.zip", "/api/sets/{round}/bag.zip", "/api/retention/{round}/record.csv", "/api/journal.csv", "/api/loose/{id}/content", "/api/inward/{id}/content",
            "/api/handouts/{link}/qr.svg", "/api/handouts/{link}/qr.png", "/api/parcel-handouts/{link}/qr.svg", "/api/parcel-handouts/{link}/qr.png", "/api/audit.csv");
    private static final Set<String> SEEING = Set.of("/api/rounds/{id}/board", "/api/baskets/{id}", "/api/exchanges/{id}", "/api/files/{id}/preview", "/api/glances/{file}", "/api/glances/loose/{id}", "/api/loose/{id}/preview",
            "/api/contacts/{id}", "/api/letters/{id}", "/api/inward/{id}", "/api/baskets/{id}/link", "/api/rounds/{id}/links", "/api/rounds/{id}/link", "/api/links/{id}", "/api/parcels/{id}", "/api/folders/files/{id}");
    /** Looks that post something, and so many small savings of a draft that the last one says enough. */
    private static final Set<String> NO_CHANGE = Set.of("/api/rounds/{id}/letters/preview", "/api/letter-texts/example", "/api/patterns/example", "/api/people/read", "/api/rules/{round}/check", "/api/refilings/trial",
            "/api/series/preview", "/api/calendars/read", "/api/rounds/{id}/change/preview", "/api/contacts/import", "/api/contacts/import/{id}/preview", "/api/today/seen", "/api/bell/seen", "/api/rounds/{id}/rehearsal/who",
            "/api/rounds/{id}/rehearsal/files", "/api/mail-servers/check", "/api/brand/colours", "/api/presence/{round}");

    private final AuditTrail trail;

    AuditInterceptor(AuditTrail trail) {
        this.trail = trail;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this);
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        AuditKind kind = request.getDispatcherType() == DispatcherType.REQUEST ? kind(request, handler) : null;
        if (kind != null) {
            // Before it is done: what is deleted has no name afterwards.
            Noted.taken();
            request.setAttribute(SUBJECT, kind == AuditKind.CHANGED ? subject(request) : "");
        }
        return true;
    }

    @Override
    public void afterCompletion(HttpServletRequest request, HttpServletResponse response, Object handler, @Nullable Exception problem) {
        AuditKind kind = kind(request, handler);
        if (kind == null || !(request.getAttribute(SUBJECT) instanceof String subject)) {
            return;
        }
        int status = response.getStatus();
        String said = Noted.taken();
        Authentication authentication = SecurityContextHolder.getContext().getAuthentication();
        if (authentication == null || !(authentication.getPrincipal() instanceof Account account) || status >= HttpStatus.BAD_REQUEST.value() && status != HttpStatus.FORBIDDEN.value()) {
            return;
        }
        boolean refused = status == HttpStatus.FORBIDDEN.value();
        String operation = request.getMethod() + " " + pattern(request);
        if (!refused && trail.again(account.id(), kind, operation, Objects.requireNonNullElse(id(request), ""))) {
            return;
        }
        String query = request.getMethod().equals("GET") ? Objects.requireNonNullElse(request.getQueryString(), "") : "";
        String of = kind == AuditKind.CHANGED ? subject : subject(request);
        String named = of.isEmpty() ? query.substring(0, Math.min(LONGEST_QUERY, query.length())) : of;
        String about = named.isEmpty() || said.isEmpty() ? named + said : named + ": " + said;
        trail.write(new AuditTrail.Somebody(account.id(), account.name(), Caller.address(request)), refused ? AuditKind.REFUSED : kind, operation, about, status);
    }

    private String subject(HttpServletRequest request) {
        return trail.subject(AuditSubject.of(pattern(request)), id(request));
    }

    /** What an operation is to the trail; null when it is not noted. */
    private static @Nullable AuditKind kind(HttpServletRequest request, Object handler) {
        if (!(handler instanceof HandlerMethod method) || !AnnotatedElementUtils.hasAnnotation(method.getMethod(), Needs.class) && !AnnotatedElementUtils.hasAnnotation(method.getBeanType(), Needs.class)) {
            return null;
        }
        String pattern = pattern(request);
        if (TAKING.contains(pattern) && request.getMethod().equals("GET") || pattern.endsWith("handouts") && request.getMethod().equals("POST")) {
            return AuditKind.TOOK;
        }
        if (request.getMethod().equals("GET") || request.getMethod().equals("HEAD")) {
            return SEEING.contains(pattern) ? AuditKind.SAW : null;
        }
        return NO_CHANGE.contains(pattern) ? null : AuditKind.CHANGED;
    }

    private static String pattern(HttpServletRequest request) {
        return Objects.requireNonNullElse(request.getAttribute(HandlerMapping.BEST_MATCHING_PATTERN_ATTRIBUTE), "").toString();
    }

    private static @Nullable String id(HttpServletRequest request) {
        if (request.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE) instanceof Map<?, ?> named) {
            return named.values().stream().map(Object::toString).findFirst().orElse(null);
        }
        return null;
    }
}
