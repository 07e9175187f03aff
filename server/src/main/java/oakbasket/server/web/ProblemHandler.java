package oakbasket.server.web;

import jakarta.servlet.http.HttpServletResponse;
import java.util.HexFormat;
import java.util.Locale;
import java.util.concurrent.ThreadLocalRandom;
import oakbasket.core.naming.PatternProblem;
import oakbasket.core.round.RoundChangeRefused;
import oakbasket.server.problem.Problem;
import org.eclipse.jetty.io.EofException;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;

/** Turns everything that goes wrong into a problem detail. */
@RestControllerAdvice
class ProblemHandler extends ResponseEntityExceptionHandler {

    private static final Logger LOG = LoggerFactory.getLogger(ProblemHandler.class);

    private final ProblemWriter writer;

    ProblemHandler(ProblemWriter writer) {
        this.writer = writer;
    }

    @ExceptionHandler
    ResponseEntity<Object> problem(Problem problem) {
        return respond(problem);
    }

    @ExceptionHandler
    ResponseEntity<Object> pattern(PatternProblem problem) {
        return respond(Problem.refused("fields").at(problem.at("pattern")));
    }

    @ExceptionHandler
    ResponseEntity<Object> change(RoundChangeRefused refused) {
        return respond(Problem.conflict("round-change", refused.from().name().toLowerCase(Locale.ROOT), refused.to().name().toLowerCase(Locale.ROOT)));
    }

    /** The reader went away; there is nobody to tell. */
    @ExceptionHandler
    void gone(EofException gone) {
        LOG.debug("A reader went away", gone);
    }

    /** Somebody took back what was being sent. Whoever was taking it away must not get a word about that into their file. */
    @ExceptionHandler
    void brokenOff(FileBytes.BrokenOff broken) {
        LOG.debug("What was being sent may not be any more", broken);
    }

    @ExceptionHandler
    @Nullable ResponseEntity<Object> anythingElse(Exception unexpected, HttpServletResponse response) {
        String number = HexFormat.of().toHexDigits(ThreadLocalRandom.current().nextInt());
        LOG.error("Unexpected error {}", number, unexpected);
        if (response.isCommitted()) {
            // What would be said of it would stand in the middle of what was being sent.
            return null;
        }
        return respond(Problem.of(Problem.Kind.UNEXPECTED, "unexpected", number));
    }

    @Override
    protected ResponseEntity<Object> handleExceptionInternal(Exception exception, @Nullable Object body, HttpHeaders headers,
            HttpStatusCode status, WebRequest request) {
        String code = switch (status.value()) {
            case 400 -> "unreadable";
            case 404 -> "not-found";
            case 405 -> "method";
            case 406, 415 -> "media-type";
            default -> "request";
        };
        ProblemDetail detail = writer.detail(HttpStatus.valueOf(status.value()), code);
        return ResponseEntity.status(status).headers(headers).contentType(MediaType.APPLICATION_PROBLEM_JSON).body(detail);
    }

    private ResponseEntity<Object> respond(Problem problem) {
        ResponseEntity.BodyBuilder answer = ResponseEntity.status(ProblemStatus.of(problem)).contentType(MediaType.APPLICATION_PROBLEM_JSON);
        if (problem.retryAfterSeconds() > 0) {
            answer.header(HttpHeaders.RETRY_AFTER, Long.toString(problem.retryAfterSeconds()));
        }
        return answer.body(writer.detail(problem));
    }
}
