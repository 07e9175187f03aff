package oakbasket.server.problem;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import oakbasket.core.fault.Fault;

/**
 * A refusal. Its words stand in {@code messages/problems.properties} under its code, as {@code code.title} and {@code code.detail}.
 */
public final class Problem extends RuntimeException {

    /** What a refusal is about, as far as a caller has to tell refusals apart. */
    public enum Kind {
        /** What came cannot be read at all. */
        UNREADABLE,
        /** Nobody is signed in, or the secret is missing or wrong. */
        SIGN_IN_NEEDED,
        /** The caller is known, and may not. */
        FORBIDDEN,
        NOT_FOUND,
        /** The caller took too long. */
        TOO_SLOW,
        /** It does not fit what is there now. */
        CONFLICT,
        /** It was there, and will not be again. */
        GONE,
        /** The caller speaks another version of the protocol. */
        OTHER_VERSION,
        TOO_LARGE,
        WRONG_TYPE,
        /** Readable, but not acceptable. */
        REFUSED,
        /** Somebody else is at work on it. */
        LOCKED,
        TOO_MANY,
        /** A mistake of this program. */
        UNEXPECTED,
        /** Another server does not do its part. */
        OTHER_SERVER,
        /** It may work a little later. */
        BUSY,
        /** The disk is full. */
        NO_ROOM
    }

    /** Something that a refusal names, whose own words stand in the message file {@code words}. */
    public record Word(String code) {
    }

    /** One of several things that were refused, and why. */
    public record Named(String name, Problem why) {
    }

    /** Several things that were refused; as many are named as help. */
    public record Several(List<Named> all) {
    }

    private final Kind kind;
    private final String code;
    private final transient List<Object> arguments;
    private final transient List<Fault> faults = new ArrayList<>();
    private long retryAfterSeconds;

    private Problem(Kind kind, String code, Object... arguments) {
        super(code, null, false, false);
        this.kind = kind;
        this.code = code;
        this.arguments = List.of(arguments);
    }

    /** A refusal of any kind. */
    public static Problem of(Kind kind, String code, Object... arguments) {
        return new Problem(kind, code, arguments);
    }

    /** What came cannot be read at all. */
    public static Problem unreadable(String code, Object... arguments) {
        return of(Kind.UNREADABLE, code, arguments);
    }

    /** Readable, but not acceptable. */
    public static Problem refused(String code, Object... arguments) {
        return of(Kind.REFUSED, code, arguments);
    }

    /** Not acceptable because of these fields. */
    public static Problem fields(List<Fault> faults) {
        Problem problem = refused("fields");
        problem.faults.addAll(faults);
        return problem;
    }

    /** Not acceptable because of one field. */
    public static Problem field(String field, String code, Object... arguments) {
        return refused("fields").at(Fault.of(field, code, arguments));
    }

    /** There is no such thing. */
    public static Problem notFound(String code, Object... arguments) {
        return of(Kind.NOT_FOUND, code, arguments);
    }

    /** It does not fit what is there now. */
    public static Problem conflict(String code, Object... arguments) {
        return of(Kind.CONFLICT, code, arguments);
    }

    /** Adds what is wrong with one field. */
    public Problem at(Fault fault) {
        faults.add(fault);
        return this;
    }

    /** Says after how long it makes sense to try again. */
    public Problem retryAfter(Duration span) {
        retryAfterSeconds = span.toSeconds();
        return this;
    }

    /** Seconds after which it makes sense to try again; 0 when nothing is known of that. */
    public long retryAfterSeconds() {
        return retryAfterSeconds;
    }

    /** What it is about. */
    public Kind kind() {
        return kind;
    }

    /** The name of the problem. */
    public String code() {
        return code;
    }

    /** What its words name. */
    public List<Object> arguments() {
        return arguments;
    }

    /** What is wrong field by field; empty when that is not what it is about. */
    public List<Fault> faults() {
        return List.copyOf(faults);
    }
}
