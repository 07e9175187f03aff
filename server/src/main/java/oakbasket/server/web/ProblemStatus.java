package oakbasket.server.web;

import oakbasket.server.problem.Problem;
import org.springframework.http.HttpStatus;

/** The HTTP status of each kind of refusal (RFC 9110 §15; 422 and 423 as RFC 4918, 429 as RFC 6585, 507 as RFC 4918). */
public final class ProblemStatus {

    private ProblemStatus() {
    }

    /** The status a refusal is answered with. */
    public static HttpStatus of(Problem problem) {
        return switch (problem.kind()) {
            case UNREADABLE -> HttpStatus.BAD_REQUEST;
            case SIGN_IN_NEEDED -> HttpStatus.UNAUTHORIZED;
            case FORBIDDEN -> HttpStatus.FORBIDDEN;
            case NOT_FOUND -> HttpStatus.NOT_FOUND;
            case TOO_SLOW -> HttpStatus.REQUEST_TIMEOUT;
            case CONFLICT -> HttpStatus.CONFLICT;
            case GONE -> HttpStatus.GONE;
            case OTHER_VERSION -> HttpStatus.PRECONDITION_FAILED;
            case TOO_LARGE -> HttpStatus.CONTENT_TOO_LARGE;
            case WRONG_TYPE -> HttpStatus.UNSUPPORTED_MEDIA_TYPE;
            case REFUSED -> HttpStatus.UNPROCESSABLE_CONTENT;
            case LOCKED -> HttpStatus.LOCKED;
            case TOO_MANY -> HttpStatus.TOO_MANY_REQUESTS;
            case UNEXPECTED -> HttpStatus.INTERNAL_SERVER_ERROR;
            case OTHER_SERVER -> HttpStatus.BAD_GATEWAY;
            case BUSY -> HttpStatus.SERVICE_UNAVAILABLE;
            case NO_ROOM -> HttpStatus.INSUFFICIENT_STORAGE;
        };
    }
}
