package oakbasket.server.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Locale;
import oakbasket.server.words.SenderLanguages;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.DispatcherServlet;
import org.springframework.web.servlet.LocaleResolver;

/** Senders are answered in their language, the desk in English. */
@Component(DispatcherServlet.LOCALE_RESOLVER_BEAN_NAME)
class SenderLocale implements LocaleResolver {

    @Override
    public Locale resolveLocale(HttpServletRequest request) {
        String path = request.getRequestURI();
        return path.startsWith("/api/basket") || path.startsWith("/api/uploads") || path.startsWith("/b/") || path.startsWith("/f/") || path.startsWith("/api/pick-up") || path.startsWith("/p/") || path.startsWith("/d/") || path.startsWith("/x/") || path.startsWith("/api/place/") || path.equals("/receipt")
                ? SenderLanguages.preferred(request.getHeader("Accept-Language")) : Locale.ENGLISH;
    }

    @Override
    public void setLocale(HttpServletRequest request, @Nullable HttpServletResponse response, @Nullable Locale locale) {
        throw new UnsupportedOperationException("The language follows from each request");
    }
}
