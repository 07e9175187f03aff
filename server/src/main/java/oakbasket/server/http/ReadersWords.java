package oakbasket.server.http;

import oakbasket.server.storage.Acting;
import oakbasket.server.words.Linkless;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Component;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.module.SimpleModule;
import tools.jackson.databind.ser.std.StdSerializer;

/**
 * What is answered to somebody who only reads, without links that somebody wrote into a note, a reason or a message: with one they could send or take as somebody else. The links that the product itself names are left out where
 * they are named (see {@link Acting#readsOnly()}).
 */
@Component
class ReadersWords extends SimpleModule {

    ReadersWords(Words words) {
        super("readers-words");
        String instead = words.of("inward.link");
        addSerializer(String.class, new StdSerializer<>(String.class) {
            @Override
            public void serialize(String text, JsonGenerator json, SerializationContext context) {
                json.writeString(Acting.readsOnly() ? Linkless.of(text, instead) : text);
            }
        });
    }
}
