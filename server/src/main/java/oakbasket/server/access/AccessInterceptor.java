package oakbasket.server.access;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Set;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.FromOutside;
import oakbasket.server.security.Needs;
import oakbasket.server.sharing.Sharing;
import oakbasket.server.storage.Acting;
import oakbasket.server.teamsetting.TeamSettings;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.AnnotatedElementUtils;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.AsyncHandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * Looks at what an operation needs before its body is read, and has the thread work for whoever asks, so that what they do not see or may not change is kept from
 * them below the services too (see {@link Acting}).
 */
@Component
class AccessInterceptor implements AsyncHandlerInterceptor, WebMvcConfigurer {

    private static final Set<String> READING = Set.of("GET", "HEAD");

    private final TeamSettings settings;
    private final Sharing sharing;

    AccessInterceptor(TeamSettings settings, Sharing sharing) {
        this.settings = settings;
        this.sharing = sharing;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this);
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        Permission needed = handler instanceof HandlerMethod method ? needed(method, request.getMethod()) : null;
        if (needed != null) {
            Authentication authentication = SecurityContextHolder.getContext().getAuthentication();
            if (authentication == null || !(authentication.getPrincipal() instanceof Account account)) {
                throw Problem.of(Problem.Kind.SIGN_IN_NEEDED, "sign-in-needed");
            }
            if (!settings.may(account.role(), needed)) {
                throw Problem.of(Problem.Kind.FORBIDDEN, "role");
            }
            Acting.begin(sharing.acting(account));
        } else if (handler instanceof HandlerMethod method && fromOutside(method)) {
            Acting.beginOffice();
        }
        return true;
    }

    private static boolean fromOutside(HandlerMethod method) {
        return AnnotatedElementUtils.hasAnnotation(method.getMethod(), FromOutside.class) || AnnotatedElementUtils.hasAnnotation(method.getBeanType(), FromOutside.class);
    }

    /** What an operation needs; null where it is for whoever is outside, or for nobody. */
    static @Nullable Permission needed(HandlerMethod method, String verb) {
        Needs own = AnnotatedElementUtils.findMergedAnnotation(method.getMethod(), Needs.class);
        Needs all = AnnotatedElementUtils.findMergedAnnotation(method.getBeanType(), Needs.class);
        if (own != null) {
            return own.value();
        }
        return all == null ? null : READING.contains(verb) ? Permission.SEE : all.value();
    }

    @Override
    public void afterCompletion(HttpServletRequest request, HttpServletResponse response, Object handler, @Nullable Exception problem) {
        Acting.end();
    }

    @Override
    public void afterConcurrentHandlingStarted(HttpServletRequest request, HttpServletResponse response, Object handler) {
        Acting.end();
    }
}
