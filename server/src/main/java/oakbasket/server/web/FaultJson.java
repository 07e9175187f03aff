package oakbasket.server.web;

import oakbasket.core.fault.Fault;
import oakbasket.server.words.Words;
import org.springframework.boot.jackson.JacksonComponent;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.ValueSerializer;

/** A fault as it is sent: its field, and what is wrong in words. */
@JacksonComponent
public final class FaultJson extends ValueSerializer<Fault> {

    /** A fault as the API description tells it. */
    record FieldError(String field, String detail) {
    }

    private final Words words;

    FaultJson(Words words) {
        this.words = words;
    }

    @Override
    public void serialize(Fault fault, JsonGenerator out, SerializationContext context) {
        out.writePOJO(new FieldError(fault.field(), words.of(fault)));
    }
}
