package oakbasket.server.inward;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import oakbasket.core.naming.SafeName;
import org.apache.poi.hmef.Attachment;
import org.apache.poi.hmef.HMEFMessage;

/** Opens the envelope that some programs put all attachments into (Microsoft, MS-OXTNEF), usually called winmail.dat. */
final class Winmail {

    /** It is read as a whole. */
    private static final long MOST_BYTES = 24L << 20;

    private Winmail() {
    }

    static boolean is(ReadMail.Part part) {
        return part.type().equals("application/ms-tnef") || part.type().equals("application/vnd.ms-tnef") || part.name().toLowerCase(Locale.ROOT).equals("winmail.dat");
    }

    /** What is in it; the envelope itself where it cannot be opened, so that nothing is lost. */
    static List<ReadMail.Part> opened(ReadMail.Part envelope, Path folder, String prefix) throws IOException {
        if (envelope.bytes() > MOST_BYTES || !envelope.whole()) {
            return List.of(envelope);
        }
        List<ReadMail.Part> inside = new ArrayList<>();
        try (InputStream in = Files.newInputStream(envelope.path())) {
            for (Attachment attachment : new HMEFMessage(in).getAttachments()) {
                byte[] content = attachment.getContents();
                String name = attachment.getLongFilename() == null ? attachment.getFilename() : attachment.getLongFilename();
                if (content != null && inside.size() < MailReader.MOST_PARTS) {
                    Path path = folder.resolve(prefix + "w" + inside.size() + ".part");
                    Files.write(path, content);
                    inside.add(new ReadMail.Part(name == null || name.isBlank() ? "winmail-" + inside.size() + ".bin" : SafeName.of(name), "application/octet-stream", path, content.length, true));
                }
            }
        } catch (IOException | RuntimeException unreadable) {
            return List.of(envelope);
        }
        return inside.isEmpty() ? List.of(envelope) : inside;
    }
}
