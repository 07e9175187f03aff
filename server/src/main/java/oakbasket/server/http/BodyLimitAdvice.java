package oakbasket.server.http;

import java.io.IOException;
import java.io.InputStream;
import java.lang.reflect.Type;
import oakbasket.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpInputMessage;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.mvc.method.annotation.RequestBodyAdviceAdapter;

/** Counts what is read of a body that becomes an object, and stops at the limit of whatever handler was found, however its address was written. */
@ControllerAdvice
class BodyLimitAdvice extends RequestBodyAdviceAdapter {

    @Override
    public boolean supports(MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter) {
        return true;
    }

    @Override
    public HttpInputMessage beforeBodyRead(HttpInputMessage message, MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter)
            throws IOException {
        Object pattern = RequestContextHolder.currentRequestAttributes().getAttribute(HandlerMapping.BEST_MATCHING_PATTERN_ATTRIBUTE, RequestAttributes.SCOPE_REQUEST);
        long most = BodyLimits.ofPattern(String.valueOf(pattern));
        if (message.getHeaders().getContentLength() > most) {
            throw tooLarge(most);
        }
        return new HttpInputMessage() {
            private @Nullable InputStream counted;

            @Override
            public InputStream getBody() throws IOException {
                if (counted == null) {
                    counted = new Counted(message.getBody(), most);
                }
                return counted;
            }

            @Override
            public HttpHeaders getHeaders() {
                return message.getHeaders();
            }
        };
    }

    private static Problem tooLarge(long most) {
        return Problem.of(Problem.Kind.TOO_LARGE, "body-too-large", most);
    }

    private static final class Counted extends InputStream {
        private final InputStream in;
        private final long most;
        private long read;

        Counted(InputStream in, long most) {
            this.in = in;
            this.most = most;
        }

        @Override
        public int read() throws IOException {
            int one = in.read();
            count(one < 0 ? 0 : 1);
            return one;
        }

        @Override
        public int read(byte[] into, int offset, int length) throws IOException {
            int some = in.read(into, offset, length);
            count(Math.max(0, some));
            return some;
        }

        @Override
        public int available() throws IOException {
            return in.available();
        }

        private void count(int more) {
            read += more;
            if (read > most) {
                throw tooLarge(most);
            }
        }
    }
}
