package oakbasket.server.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Limits;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * How often one caller may ask for anything that needs no sign-in; what costs more or could be guessed at has its own, much narrower limits beside it. Signing in
 * is not counted here, so that nobody in the same house keeps a coordinator out.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 20)
class StrangersLimit extends OncePerRequestFilter {

    private static final List<String> WITHOUT_SIGN_IN = List.of("/api/basket", "/api/uploads", "/b", "/B", "/f/", "/api/pick-up", "/p/", "/P/", "/d/", "/x/", "/api/place", "/receipt", "/calendar/", "/dav");

    private final Limits limits;
    private final ProblemWriter problems;

    StrangersLimit(Limits limits, ProblemWriter problems) {
        this.limits = limits;
        this.problems = problems;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return WITHOUT_SIGN_IN.stream().noneMatch(request.getServletPath()::startsWith) || request.getServletPath().startsWith("/api/baskets");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws ServletException, IOException {
        try {
            limits.count(Limits.Kind.STRANGER, Caller.of(request));
        } catch (Problem tooMany) {
            response.setHeader("Retry-After", Long.toString(tooMany.retryAfterSeconds()));
            problems.write(tooMany, response);
            return;
        }
        chain.doFilter(request, response);
    }
}
