package oakbasket.server.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Set;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Keeps the JSON that strangers may send small. Files come in by another way, which never holds them in memory. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class SmallBodyFilter extends OncePerRequestFilter {

    private static final long MOST_BYTES = 64 * 1024;
    private static final Set<String> METHODS = Set.of("POST", "PUT", "DELETE");

    private final ProblemWriter problems;

    SmallBodyFilter(ProblemWriter problems) {
        this.problems = problems;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        String path = request.getRequestURI();
        return !METHODS.contains(request.getMethod())
                || !(path.startsWith("/api/basket/") || path.equals("/api/session") || path.equals("/api/first-account"));
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws ServletException, IOException {
        if (request.getHeader("Transfer-Encoding") != null) {
            problems.write(Problem.of(HttpStatus.LENGTH_REQUIRED, "body-length"), response);
        } else if (request.getContentLengthLong() > MOST_BYTES) {
            problems.write(Problem.of(HttpStatus.CONTENT_TOO_LARGE, "body-too-large", MOST_BYTES), response);
        } else {
            chain.doFilter(request, response);
        }
    }
}
