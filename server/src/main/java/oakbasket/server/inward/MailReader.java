package oakbasket.server.inward;

import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
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
 * Reads a message part by part, so that nothing that a hostile one holds is in memory at once: lines, headers, depth, parts and bytes are all bounded (RFC 2045 to 2047, 2183, 2231). What is nested deeper than anybody nests is
 * not looked into.
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
    private static final int SMALL_PICTURE = 40 << 10;
    private static final int BUFFER = 64 << 10;
    private static final List<String> RECIPIENT_FIELDS = List.of("Delivered-To", "X-Original-To", "Envelope-To", "To", "Cc");

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
    private int pictures;
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
     * @throws MimeException when it cannot be read as a message, or is beyond the bounds
     */
    static ReadMail read(Path message, Path folder, String prefix, UnaryOperator<String> markup) throws IOException, MimeException {
        MailReader reader = new MailReader(folder, prefix, markup);
        try (InputStream in = new BufferedInputStream(Files.newInputStream(message), BUFFER)) {
            reader.parse(in);
        }
        return reader.done();
    }

    private void parse(InputStream in) throws IOException, MimeException {
        MimeConfig config = new MimeConfig.Builder().setMaxLineLen(LONGEST_LINE).setMaxHeaderCount(MOST_HEADERS).setMaxHeaderLen(LONGEST_HEADER).setMaxContentLen(-1).build();
        MimeTokenStream stream = new MimeTokenStream(config, DecodeMonitor.SILENT, new DefaultBodyDescriptorBuilder());
        stream.setRecursionMode(RecursionMode.M_NO_RECURSE);
        stream.parse(in);
        Deque<String> inside = new ArrayDeque<>();
        boolean top = true;
        for (EntityState state = stream.getState(); state != EntityState.T_END_OF_STREAM; state = stream.next()) {
            switch (state) {
                case T_FIELD -> {
                    if (top) {
                        headers.add(stream.getField().getName(), String.valueOf(stream.getField().getBody()));
                    }
                }
                case T_END_HEADER -> top = false;
                case T_START_MULTIPART -> {
                    inside.push(stream.getBodyDescriptor().getMimeType());
                    if (inside.size() > MOST_DEPTH) {
                        throw new MimeException("too deep");
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
            throw new MimeException("too many parts");
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
            try {
                for (int read = content.read(buffer); read >= 0; read = content.read(buffer)) {
                    if (read > room) {
                        whole = false;
                        break;
                    }
                    out.write(buffer, 0, read);
                    bytes += read;
                    room -= read;
                }
            } catch (IOException damaged) {
                whole = false;
            }
        }
        boolean decoration = inside.equals("multipart/related") && type.startsWith("image/") && about.getContentId() != null && bytes < SMALL_PICTURE
                && !"attachment".equalsIgnoreCase(about.getContentDispositionType());
        if (decoration) {
            pictures++;
            Files.delete(path);
            return;
        }
        parts.add(new ReadMail.Part(name.isEmpty() ? unnamed(type) : name, type, path, bytes, whole));
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
                report, returned, parts, pictures);
    }

    private boolean oneAuthor() {
        List<String> fields = headers.all("From");
        try {
            List<Address> authors = fields.size() == 1 ? LenientAddressParser.DEFAULT.parseAddressList(fields.get(0)) : List.of();
            return authors.size() == 1 && authors.get(0) instanceof Mailbox;
        } catch (RuntimeException unreadable) {
            return false;
        }
    }

    private static @Nullable Mailbox mailbox(String value) {
        try {
            return value.isBlank() ? null : LenientAddressParser.DEFAULT.parseMailbox(value);
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
