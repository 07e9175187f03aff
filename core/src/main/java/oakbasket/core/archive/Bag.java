package oakbasket.core.archive;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;

/** The tag files of a BagIt bag (RFC 8493, version 1.0) with SHA-256 manifests. The same payload gives the same bag. */
public final class Bag {

    /**
     * A file of the payload.
     *
     * @param path below {@code data/}
     */
    public record Payload(String path, byte[] sha256, long bytes) {
    }

    /** A tag file: its name at the top of the bag, and what is in it. */
    public record Tag(String name, byte[] content) {
    }

    private static final String DECLARATION = "BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n";

    private Bag() {
    }

    /**
     * Makes the tag files.
     *
     * @param info labels and values of {@code bag-info.txt}, in order, each "Label: value"; Payload-Oxum is added
     * @param further other tag files
     */
    public static List<Tag> tags(List<Payload> payload, List<String> info, List<Tag> further) {
        List<Tag> tags = new ArrayList<>();
        tags.add(text("bagit.txt", DECLARATION));
        long bytes = payload.stream().mapToLong(Payload::bytes).sum();
        StringBuilder lines = new StringBuilder();
        info.forEach(line -> lines.append(line.replaceAll("[\\r\\n]+", " ")).append('\n'));
        tags.add(text("bag-info.txt", lines + "Payload-Oxum: " + bytes + "." + payload.size() + "\n"));
        StringBuilder manifest = new StringBuilder();
        payload.forEach(file -> manifest.append(HexFormat.of().formatHex(file.sha256())).append("  data/").append(encoded(file.path())).append('\n'));
        tags.add(text("manifest-sha256.txt", manifest.toString()));
        tags.addAll(further);
        StringBuilder tagManifest = new StringBuilder();
        tags.forEach(tag -> tagManifest.append(HexFormat.of().formatHex(sha256(tag.content()))).append("  ").append(encoded(tag.name())).append('\n'));
        tags.add(text("tagmanifest-sha256.txt", tagManifest.toString()));
        return tags;
    }

    /** Line ends and the mark that writes them stand encoded in manifests (RFC 8493, 2.1.3). */
    private static String encoded(String path) {
        return path.replace("%", "%25").replace("\n", "%0A").replace("\r", "%0D");
    }

    private static Tag text(String name, String content) {
        return new Tag(name, content.getBytes(StandardCharsets.UTF_8));
    }

    private static byte[] sha256(byte[] content) {
        try {
            return MessageDigest.getInstance("SHA-256").digest(content);
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
