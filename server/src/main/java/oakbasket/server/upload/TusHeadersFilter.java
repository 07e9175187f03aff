package oakbasket.server.upload;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * What tus 1.0.0 asks of every answer and every request: the version in the answer whoever gives it, and the method in {@code X-HTTP-Method-Override} where
 * a network lets only POST through.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 10)
class TusHeadersFilter extends OncePerRequestFilter {

    private static final Set<String> BEHIND_POST = Set.of("PATCH", "DELETE", "HEAD");

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !request.getServletPath().startsWith("/api/uploads");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws ServletException, IOException {
        response.setHeader("Tus-Resumable", TusController.VERSION);
        String meant = override(request);
        chain.doFilter(meant == null ? request : new HttpServletRequestWrapper(request) {
            @Override
            public String getMethod() {
                return meant;
            }
        }, response);
    }

    private static @Nullable String override(HttpServletRequest request) {
        String meant = request.getHeader("X-HTTP-Method-Override");
        return request.getMethod().equals("POST") && meant != null && BEHIND_POST.contains(meant) && request.getServletPath().startsWith("/api/uploads/") ? meant : null;
    }
}
