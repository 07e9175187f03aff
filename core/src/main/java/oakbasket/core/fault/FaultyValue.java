package oakbasket.core.fault;

/** A text that somebody typed cannot be read as what it should be. Its message is for logs: it names the code and nothing that was typed. */
public class FaultyValue extends IllegalArgumentException {

    private final transient Remark reason;

    public FaultyValue(String code, Object... arguments) {
        this(Remark.of(code, arguments));
    }

    public FaultyValue(Remark reason) {
        super(reason.code());
        this.reason = reason;
    }

    /** Why, for the person who typed it. */
    public Remark reason() {
        return reason;
    }

    /** Why, as a fault of a field. */
    public Fault at(String field) {
        return reason.at(field);
    }
}
