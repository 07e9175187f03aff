package oakbasket.server.inward;

import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.URLEncoder;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.function.UnaryOperator;
import oakbasket.core.inward.MailHeaders;
import oakbasket.core.naming.SafeName;
import org.apache.james.mime4j.MimeException;
import org.apache.james.mime4j.codec.DecodeMonitor;
import org.apache.james.mime4j.codec.DecoderUtil;
import org.apache.james.mime4j.dom.address.Address;
import org.apache.james.mime4j.dom.address.Mailbox;
import org.apache.james.mime4j.field.address.LenientAddressParser;
import org.apache.james.mime4j.message.DefaultBodyDescriptorBuilder;
import org.apache.james.mime4j.message.MaximalBodyDescriptor;
import org.apache.james.mime4j.stream.EntityState;
import org.apache.james.mime4j.stream.MimeConfig;
import org.apache.james.mime4j.stream.MimeTokenStream;
import org.apache.james.mime4j.stream.RecursionMode;
import org.jspecify.annotations.Nullable;

/**
 * Reads a message part by part, so that nothing that a hostile one holds is in memory at once: lines, headers, depth, parts and bytes are all bounded (RFC 2045 to 2047, 2183, 2231). What is beyond the bounds is not looked
 * into, and what could be read before stays: a message is never lost as a whole. Messages that are forwarded are opened like any message.
 */
final class MailReader {

    static final int MOST_PARTS = 100;
    static final int MOST_DEPTH = 20;
    /** Of all parts together, decoded: a compressed or repeated message cannot fill the disk. */
    static final long MOST_BYTES = 64L << 20;
    private static final int MOST_HEADERS = 1_000;
    private static final int LONGEST_LINE = 100_000;
    private static final int LONGEST_HEADER = 100_000;
    private static final int LONGEST_TEXT = 100_000;
    private static final int MOST_RECIPIENTS = 100;
    /** Longer than any address can be (RFC 5321, 4.5.3.1), as records have room for. */
    private static final int LONGEST_ADDRESS = 320;
    /** As many messages are opened within one another. */
    private static final int MOST_FORWARDED = 5;
    private static final int BUFFER = 64 << 10;
    private static final int END = -1;
    private static final int DAMAGED = -2;
    private static final List<String> RECIPIENT_FIELDS = List.of("Delivered-To", "X-Original-To", "Envelope-To", "To", "Cc");

    /** What was read could not be put on the disk: that is no fault of the message. */
    private static final class NotKept extends IOException {
        private static final long serialVersionUID = 1;

        NotKept(IOException why) {
            super(why);
        }
    }

    private final Path folder;
    private final String prefix;
    private final UnaryOperator<String> markup;
    private final MailHeaders headers = new MailHeaders();
    private final List<ReadMail.Part> parts = new ArrayList<>();
    private String plain = "";
    private String html = "";
    private String report = "";
    private String returned = "";
    private long room = MOST_BYTES;
    private final List<String> shown = new ArrayList<>();
    private ReadMail.Unread unread = ReadMail.Unread.NOTHING;
    /** Whether the header was read to its end, so that no further author can stand in it. */
    private boolean headerWhole;
    private int seen;

    private MailReader(Path folder, String prefix, UnaryOperator<String> markup) {
        this.folder = folder;
        this.prefix = prefix;
        this.markup = markup;
    }

    /**
     * Reads a message.
     *
     * @param folder where what is attached is put, in files whose names begin with {@code prefix}
     * @param markup makes plain text of HTML
     * @throws IOException when there is no such file, or what is attached cannot be put on the disk
     */
    static ReadMail read(Path message, Path folder, String prefix, UnaryOperator<String> markup) throws IOException {
        return new MailReader(folder, prefix, markup).whole(message, 0);
    }

    private ReadMail whole(Path message, int forwarded) throws IOException {
        try (InputStream in = new BufferedInputStream(Files.newInputStream(message), BUFFER)) {
            parse(in);
        } catch (NoSuchFileException | NotKept here) {
            throw here;
        } catch (IOException | MimeException | RuntimeException broken) {
            unread = ReadMail.Unread.BROKEN;
        }
        if (!headers.has("From")) {
            HeaderLines.of(message).forEach((name, value) -> {
                if (!headers.has(name)) {
                    headers.add(name, value);
                }
            });
        }
        markShown();
        if (report.isEmpty() && returned.isEmpty() && forwarded < MOST_FORWARDED) {
            openForwarded(forwarded);
        }
        return done();
    }

    /** Puts what is attached to forwarded messages in their place; one with nothing attached stays as it is. */
    private void openForwarded(int forwarded) throws IOException {
        List<ReadMail.Part> all = List.copyOf(parts);
        parts.clear();
        for (ReadMail.Part part : all) {
            if (!part.type().equals("message/rfc822") || !part.whole() || seen >= MOST_PARTS) {
                parts.add(part);
                continue;
            }
            MailReader inner = new MailReader(folder, prefix + "f" + parts.size() + "-", text -> "");
            inner.room = room;
            inner.seen = seen;
            ReadMail mail = inner.whole(part.path(), forwarded + 1);
            room = inner.room;
            seen = inner.seen;
            unread = unread == ReadMail.Unread.NOTHING && mail.unread() != ReadMail.Unread.BROKEN ? mail.unread() : unread;
            mail.parts().forEach(one -> parts.add(new ReadMail.Part(one.name(), one.type(), one.path(), one.bytes(), one.whole(), one.calendarMethod(), one.shownInText(),
                    one.forwardedFrom().isEmpty() ? mail.from() : one.forwardedFrom())));
            if (mail.parts().isEmpty() || mail.unread() == ReadMail.Unread.BROKEN) {
                // Also beside what could be taken out of a damaged one, so that nothing of it is lost.
                parts.add(part);
            }
        }
    }

    private void parse(InputStream in) throws IOException, MimeException {
        MimeConfig config = new MimeConfig.Builder().setMaxLineLen(LONGEST_LINE).setMaxHeaderCount(MOST_HEADERS).setMaxHeaderLen(LONGEST_HEADER).setMaxContentLen(-1).build();
        MimeTokenStream stream = new MimeTokenStream(config, DecodeMonitor.SILENT, new DefaultBodyDescriptorBuilder());
        stream.setRecursionMode(RecursionMode.M_NO_RECURSE);
        stream.parse(in);
        Deque<String> inside = new ArrayDeque<>();
        boolean top = true;
        for (EntityState state = stream.getState(); state != EntityState.T_END_OF_STREAM && unread == ReadMail.Unread.NOTHING; state = stream.next()) {
            switch (state) {
                case T_FIELD -> {
                    if (top) {
                        headers.add(stream.getField().getName(), String.valueOf(stream.getField().getBody()));
                    }
                }
                case T_END_HEADER -> {
                    top = false;
                    headerWhole = true;
                }
                case T_START_MULTIPART -> {
                    inside.push(stream.getBodyDescriptor().getMimeType());
                    if (inside.size() > MOST_DEPTH) {
                        unread = ReadMail.Unread.TOO_DEEP;
                    }
                }
                case T_END_MULTIPART -> inside.pop();
                case T_BODY -> body(stream, String.valueOf(inside.peek()));
                default -> {
                }
            }
        }
    }

    private void body(MimeTokenStream stream, String inside) throws IOException, MimeException {
        if (++seen > MOST_PARTS) {
            unread = ReadMail.Unread.TOO_MANY;
            return;
        }
        MaximalBodyDescriptor about = (MaximalBodyDescriptor) stream.getBodyDescriptor();
        String type = about.getMimeType().toLowerCase(Locale.ROOT);
        String name = name(about);
        boolean attached = "attachment".equalsIgnoreCase(about.getContentDispositionType());
        InputStream content = stream.getDecodedInputStream();
        if (type.equals("message/delivery-status")) {
            report = text(content, StandardCharsets.US_ASCII);
        } else if (inside.equals("multipart/report") && (type.equals("message/rfc822") || type.equals("text/rfc822-headers"))) {
            returned = text(content, StandardCharsets.ISO_8859_1);
        } else if (!attached && name.isEmpty() && type.equals("text/plain")) {
            plain = further(plain, text(content, charset(about)));
        } else if (!attached && name.isEmpty() && type.equals("text/html")) {
            html = further(html, text(content, charset(about)));
        } else {
            attach(content, name, type, about, inside);
        }
    }

    private void attach(InputStream content, String name, String type, MaximalBodyDescriptor about, String inside) throws IOException {
        Path path = folder.resolve(prefix + parts.size() + ".part");
        long bytes = 0;
        boolean whole = true;
        try (OutputStream out = Files.newOutputStream(path)) {
            byte[] buffer = new byte[BUFFER];
            for (int read = next(content, buffer); read != END; read = next(content, buffer)) {
                if (read == DAMAGED || read > room) {
                    whole = false;
                    break;
                }
                out.write(buffer, 0, read);
                bytes += read;
                room -= read;
            }
        } catch (IOException full) {
            throw new NotKept(full);
        }
        String id = String.valueOf(about.getContentId()).replaceAll("[<>\\s]", "");
        // RFC 2392: a part of a related whole, or one that the text names by its id.
        boolean related = inside.equals("multipart/related") && about.getContentId() != null && !"attachment".equalsIgnoreCase(about.getContentDispositionType());
        shown.add(about.getContentId() == null ? "" : id);
        String method = type.equals("text/calendar") || type.equals("application/ics") ? String.valueOf(Objects.requireNonNullElse(about.getContentTypeParameters().get("method"), "")) : "";
        parts.add(new ReadMail.Part(name.isEmpty() ? unnamed(type) : name, type, path, bytes, whole, method, related, ""));
    }

    private static int next(InputStream content, byte[] buffer) {
        try {
            return content.read(buffer);
        } catch (IOException damaged) {
            return DAMAGED;
        }
    }

    /** What a part without a name is called: after its kind, so that it can be opened. */
    private String unnamed(String type) {
        String ending = type.equals("message/rfc822") ? "eml" : type.substring(type.indexOf('/') + 1).replaceAll("[^a-z0-9]", "");
        return "mail-" + (parts.size() + 1) + "." + (ending.equals("calendar") ? "ics" : ending.equals("jpeg") ? "jpg" : ending.equals("plain") ? "txt" : ending.isEmpty() ? "bin" : ending);
    }

    private static String name(MaximalBodyDescriptor about) {
        String name = about.getContentDispositionFilename();
        if (name == null) {
            name = about.getContentTypeParameters().get("name");
        }
        if (name == null || name.isBlank()) {
            return "";
        }
        String decoded = words(name);
        int path = Math.max(decoded.lastIndexOf('/'), decoded.lastIndexOf('\\'));
        return SafeName.of(decoded.substring(path + 1));
    }

    private static Charset charset(MaximalBodyDescriptor about) {
        try {
            return about.getCharset() == null ? StandardCharsets.UTF_8 : Charset.forName(about.getCharset());
        } catch (IllegalArgumentException unknown) {
            return StandardCharsets.UTF_8;
        }
    }

    /** Some programs part the text where an attachment stands in it: what is written behind it is read too. */
    private static String further(String before, String text) {
        String both = before.isEmpty() ? text : before + "\n" + text;
        return both.substring(0, Math.min(both.length(), LONGEST_TEXT));
    }

    private static String text(InputStream in, Charset charset) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        byte[] buffer = new byte[BUFFER];
        for (int read = in.read(buffer); read >= 0 && out.size() < LONGEST_TEXT; read = in.read(buffer)) {
            out.write(buffer, 0, Math.min(read, LONGEST_TEXT - out.size()));
        }
        return out.toString(charset).replace("\u0000", "");
    }

    /** Which parts the text shows is known only when all of it was read. */
    private void markShown() {
        for (int at = 0; at < Math.min(parts.size(), shown.size()); at++) {
            ReadMail.Part part = parts.get(at);
            String id = shown.get(at);
            if (!id.isEmpty() && (html.contains("cid:" + id) || html.contains("cid:" + URLEncoder.encode(id, StandardCharsets.UTF_8)))) {
                parts.set(at, new ReadMail.Part(part.name(), part.type(), part.path(), part.bytes(), part.whole(), part.calendarMethod(), true, part.forwardedFrom()));
            }
        }
    }

    private ReadMail done() {
        Mailbox author = mailbox(headers.first("From"));
        List<String> recipients = new ArrayList<>();
        for (String field : RECIPIENT_FIELDS) {
            for (String value : headers.all(field)) {
                for (String one : value.split(",")) {
                    Mailbox to = recipients.size() < MOST_RECIPIENTS ? mailbox(one) : null;
                    if (to != null) {
                        recipients.add(to.getAddress());
                    }
                }
            }
        }
        String written = WrittenText.of(plain.isBlank() ? markup.apply(html) : plain);
        return new ReadMail(headers, words(headers.first("Subject")), author == null ? "" : words(Objects.requireNonNullElse(author.getName(), "")), author == null ? "" : author.getAddress(), oneAuthor(), recipients, written,
                report, returned, parts, unread);
    }

    private boolean oneAuthor() {
        List<String> fields = headers.all("From");
        try {
            List<Address> authors = headerWhole && fields.size() == 1 ? LenientAddressParser.DEFAULT.parseAddressList(fields.get(0)) : List.of();
            return authors.size() == 1 && authors.get(0) instanceof Mailbox;
        } catch (RuntimeException unreadable) {
            return false;
        }
    }

    private static @Nullable Mailbox mailbox(String value) {
        try {
            Mailbox found = value.isBlank() ? null : LenientAddressParser.DEFAULT.parseMailbox(value);
            return found == null || found.getAddress().length() > LONGEST_ADDRESS ? null : found;
        } catch (RuntimeException unreadable) {
            return null;
        }
    }

    /** A header in words (RFC 2047). */
    private static String words(String header) {
        try {
            return DecoderUtil.decodeEncodedWords(header, DecodeMonitor.SILENT, StandardCharsets.UTF_8).replaceAll("[\\p{Cc}\\p{Cf}]+", " ").strip();
        } catch (RuntimeException undecodable) {
            return header;
        }
    }
}
