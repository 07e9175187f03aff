package oakbasket.server.web;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.HexFormat;
import java.util.Set;
import oakbasket.server.problem.Problem;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/** Serves what somebody sent, never in a way a browser would run. */
public final class ServedFile {

    /** What may be shown rather than saved; everything else is an attachment only. */
    private static final Set<String> SHOWN = Set.of("image/png", "image/jpeg", "image/gif", "image/webp", "application/pdf");
    private static final String SANDBOX = "sandbox; default-src 'none'";

    private ServedFile() {
    }

    /** A file to be saved under a name. */
    public static ResponseEntity<Resource> saved(Path file, byte[] sha256, String name) {
        return serve(file, sha256, MediaType.APPLICATION_OCTET_STREAM, ContentDisposition.attachment().filename(name, StandardCharsets.UTF_8).build());
    }

    /**
     * A file to be shown.
     *
     * @throws Problem with status 422 when files of its media type cannot be
     */
    public static ResponseEntity<Resource> shown(Path file, byte[] sha256, String mediaType) {
        MediaType type = SHOWN.contains(mediaType) ? MediaType.valueOf(mediaType)
                : mediaType.startsWith("text/") || mediaType.endsWith("xml") || mediaType.endsWith("json") ? MediaType.TEXT_PLAIN : null;
        if (type == null) {
            throw Problem.refused("no-preview");
        }
        return serve(file, sha256, type, ContentDisposition.inline().build());
    }

    private static ResponseEntity<Resource> serve(Path file, byte[] sha256, MediaType type, ContentDisposition disposition) {
        return ResponseEntity.ok()
                .contentType(type)
                .eTag(HexFormat.of().formatHex(sha256))
                .cacheControl(CacheControl.noCache().cachePrivate())
                .header(HttpHeaders.CONTENT_DISPOSITION, disposition.toString())
                .header("Content-Security-Policy", SANDBOX)
                .body(new FileSystemResource(file));
    }
}
