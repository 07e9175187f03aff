package oakbasket.server.inward;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import oakbasket.core.naming.SafeName;
import oakbasket.server.decode.Decoders;
import oakbasket.server.decode.work.OpenEnvelope;
import org.springframework.stereotype.Component;

/** Opens the envelopes in which some programs of Microsoft put what is attached, usually called winmail.dat. */
@Component
class Winmail {

    /** It is read as a whole. */
    private static final long MOST_BYTES = 24L << 20;

    private final Decoders decoders;

    Winmail(Decoders decoders) {
        this.decoders = decoders;
    }

    static boolean is(ReadMail.Part part) {
        return part.type().equals("application/ms-tnef") || part.type().equals("application/vnd.ms-tnef") || part.name().toLowerCase(Locale.ROOT).equals("winmail.dat");
    }

    /** What is in it, which may be nothing; the envelope itself where it cannot be opened, so that nothing is lost. */
    List<ReadMail.Part> opened(ReadMail.Part envelope, Path folder, String prefix) throws IOException {
        if (envelope.bytes() > MOST_BYTES || !envelope.whole()) {
            return List.of(envelope);
        }
        OpenEnvelope.Inside read = decoders.ask(new OpenEnvelope(MailReader.MOST_PARTS), Files.readAllBytes(envelope.path()), Decoders.Lane.MAIL).orElse(null);
        if (read == null) {
            return List.of(envelope);
        }
        List<ReadMail.Part> inside = new ArrayList<>();
        for (OpenEnvelope.Paper paper : read.papers()) {
            Path path = folder.resolve(prefix + "w" + inside.size() + ".part");
            Files.write(path, paper.content());
            inside.add(new ReadMail.Part(paper.name().isEmpty() ? "winmail-" + inside.size() + ".bin" : SafeName.of(paper.name()), "application/octet-stream", path, paper.content().length, true, "", false, envelope.forwardedFrom()));
        }
        return inside;
    }
}
