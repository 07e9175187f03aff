package oakbasket.server.decode.work;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.apache.poi.hmef.Attachment;
import org.apache.poi.hmef.HMEFMessage;

/**
 * Opens an envelope in Microsoft's own format for attachments (MS-OXTNEF), usually called winmail.dat.
 *
 * @param most how many attachments are taken out of it
 */
public record OpenEnvelope(int most) implements DecodeWork<OpenEnvelope.Inside> {

    /** What is in it. */
    public record Inside(List<Paper> papers) {
    }

    /** Something attached. @param name empty where it has none */
    public record Paper(String name, byte[] content) {
    }

    @Override
    public Inside work(Path file) throws IOException {
        List<Paper> papers = new ArrayList<>();
        try (InputStream in = Files.newInputStream(file)) {
            for (Attachment attachment : new HMEFMessage(in).getAttachments()) {
                byte[] content = attachment.getContents();
                String name = attachment.getLongFilename() == null ? attachment.getFilename() : attachment.getLongFilename();
                if (content != null && papers.size() < most) {
                    papers.add(new Paper(name == null || name.isBlank() ? "" : name, content));
                }
            }
        }
        return new Inside(papers);
    }

    @Override
    public Class<Inside> answers() {
        return Inside.class;
    }

    /** What is in it comes back in Base64. */
    @Override
    public int longestAnswer() {
        return 3 * USUAL_ANSWER_BYTES;
    }
}
