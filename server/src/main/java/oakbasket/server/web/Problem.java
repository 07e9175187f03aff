package oakbasket.server.web;

import java.util.ArrayList;
import java.util.List;
import org.springframework.http.HttpStatus;

/**
 * A refusal, told as a problem detail (RFC 9457). Its words stand in {@code messages/problems.properties} under its code, as
 * {@code code.title} and {@code code.detail}.
 */
public final class Problem extends RuntimeException {

    /**
     * What is wrong with one field.
     *
     * @param field the path of the field in what was sent, such as {@code items[0].title}
     * @param detail for the person who filled it in
     */
    public record FieldError(String field, String detail) {
    }

    private final HttpStatus status;
    private final String code;
    private final List<Object> arguments;
    private long retryAfterSeconds;
    private final List<FieldError> errors = new ArrayList<>();

    private Problem(HttpStatus status, String code, Object... arguments) {
        super(code, null, false, false);
        this.status = status;
        this.code = code;
        this.arguments = List.of(arguments);
    }

    /** 400: what came cannot be read at all. */
    public static Problem unreadable(String code, Object... arguments) {
        return new Problem(HttpStatus.BAD_REQUEST, code, arguments);
    }

    /** 422: readable, but not acceptable. */
    public static Problem refused(String code, Object... arguments) {
        return new Problem(HttpStatus.UNPROCESSABLE_CONTENT, code, arguments);
    }

    /** 422 with a list of fields. */
    public static Problem fields(List<FieldError> errors) {
        Problem problem = refused("fields");
        problem.errors.addAll(errors);
        return problem;
    }

    /** 404. */
    public static Problem notFound(String code, Object... arguments) {
        return new Problem(HttpStatus.NOT_FOUND, code, arguments);
    }

    /** 409: it does not fit what is there now. */
    public static Problem conflict(String code, Object... arguments) {
        return new Problem(HttpStatus.CONFLICT, code, arguments);
    }

    /** Any other status. */
    public static Problem of(HttpStatus status, String code, Object... arguments) {
        return new Problem(status, code, arguments);
    }

    /** Adds what is wrong with one field. */
    public Problem at(String field, String detail) {
        errors.add(new FieldError(field, detail));
        return this;
    }

    /** Says after how long it makes sense to try again. */
    public Problem retryAfter(java.time.Duration span) {
        retryAfterSeconds = span.toSeconds();
        return this;
    }

    /** Seconds after which it makes sense to try again; 0 when nothing is known of that. */
    public long retryAfterSeconds() {
        return retryAfterSeconds;
    }

    /** The status it is answered with. */
    public HttpStatus status() {
        return status;
    }

    /** The name of the problem, the last part of its type. */
    public String code() {
        return code;
    }

    Object[] arguments() {
        return arguments.toArray();
    }

    List<FieldError> errors() {
        return List.copyOf(errors);
    }
}
