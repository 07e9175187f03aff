package oakbasket.server.http;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.zip.GZIPOutputStream;
import org.eclipse.jetty.http.HttpHeader;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Callback;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.MediaType;
import org.springframework.http.MediaTypeFactory;

/**
 * Serves the parts of the two pages from memory, compressed once. They are the largest answers that a stranger can ask for; each is written in one piece
 * that all share, and no thread waits while it is read, however slowly.
 */
final class AssetsInMemory extends Handler.Wrapper {

    private static final String PREFIX = "/assets/";
    private static final String FOR_A_YEAR = "max-age=31536000, public, immutable";
    private static final Set<String> COMPRESSED_ALREADY = Set.of("font/woff2", "image/png");
    private static final Asset NONE = new Asset("", ByteBuffer.allocate(0), null);

    private record Asset(String mediaType, ByteBuffer plain, @Nullable ByteBuffer gzip) {
    }

    private final Map<String, Asset> assets = new ConcurrentHashMap<>();

    AssetsInMemory(Handler next) {
        super(next);
    }

    @Override
    @SuppressWarnings("ReferenceEquality") // nothing found is one thing, not a value
    public boolean handle(Request request, Response response, Callback callback) throws Exception {
        String path = Request.getPathInContext(request);
        boolean reading = request.getMethod().equals("GET") || request.getMethod().equals("HEAD");
        Asset asset = reading && path.startsWith(PREFIX) ? find(path) : NONE;
        if (asset == NONE) {
            return super.handle(request, response, callback);
        }
        ByteBuffer gzip = request.getHeaders().contains(HttpHeader.ACCEPT_ENCODING, "gzip") ? asset.gzip() : null;
        boolean zipped = gzip != null;
        ByteBuffer body = (gzip != null ? gzip : asset.plain()).duplicate();
        response.getHeaders().put(HttpHeader.CONTENT_TYPE, asset.mediaType());
        response.getHeaders().put(HttpHeader.CACHE_CONTROL, FOR_A_YEAR);
        response.getHeaders().put(HttpHeader.VARY, "Accept-Encoding");
        response.getHeaders().put(HttpHeader.CONTENT_LENGTH, body.remaining());
        if (zipped) {
            response.getHeaders().put(HttpHeader.CONTENT_ENCODING, "gzip");
        }
        response.write(true, request.getMethod().equals("HEAD") ? ByteBuffer.allocate(0) : body, callback);
        return true;
    }

    /** The names of built parts are plain; any other name has none, and is not remembered. */
    private Asset find(String path) {
        String name = path.substring(PREFIX.length());
        if (!name.matches("[A-Za-z0-9_-][A-Za-z0-9._-]{0,200}")) {
            return NONE;
        }
        Asset known = assets.get(name);
        if (known != null) {
            return known;
        }
        ClassPathResource resource = new ClassPathResource("static" + PREFIX + name);
        // Hundreds may ask for the same part before anybody has; it is read once, and the others wait for it.
        return resource.isReadable() ? assets.computeIfAbsent(name, first -> read(first, resource)) : NONE;
    }

    private static Asset read(String name, ClassPathResource resource) {
        try (InputStream in = resource.getInputStream()) {
            byte[] plain = in.readAllBytes();
            String type = name.endsWith(".mjs") || name.endsWith(".js") ? "text/javascript"
                    : MediaTypeFactory.getMediaType(name).orElse(MediaType.APPLICATION_OCTET_STREAM).toString();
            return new Asset(type, outsideTheHeap(plain), COMPRESSED_ALREADY.contains(type) ? null : outsideTheHeap(gzip(plain)));
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** What lies in the heap is copied out of it whole for each write, and each thread keeps its copy. */
    private static ByteBuffer outsideTheHeap(byte[] bytes) {
        return ByteBuffer.allocateDirect(bytes.length).put(bytes).flip().asReadOnlyBuffer();
    }

    private static byte[] gzip(byte[] plain) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (GZIPOutputStream zip = new GZIPOutputStream(out)) {
            zip.write(plain);
        }
        return out.toByteArray();
    }
}
