package oakbasket.server.web;

import oakbasket.core.fault.Remark;
import oakbasket.server.words.Words;
import org.springframework.boot.jackson.JacksonComponent;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.ValueSerializer;

/** A remark as it is sent: its words; an empty text when there is nothing to tell. */
@JacksonComponent
public final class RemarkJson extends ValueSerializer<Remark> {

    private final Words words;

    RemarkJson(Words words) {
        this.words = words;
    }

    @Override
    public void serialize(Remark remark, JsonGenerator out, SerializationContext context) {
        out.writeString(words.of(remark));
    }
}
