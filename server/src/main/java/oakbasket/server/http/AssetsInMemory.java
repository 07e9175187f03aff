package oakbasket.server.http;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.zip.GZIPOutputStream;
import org.eclipse.jetty.http.HttpHeader;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Callback;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import org.springframework.http.MediaType;
import org.springframework.http.MediaTypeFactory;

/**
 * Serves the parts of the two pages from memory, read and compressed when the application starts. They are the largest answers that a stranger can ask for;
 * each is written in one piece that all share, and no thread waits while it is read, however slowly.
 */
final class AssetsInMemory extends Handler.Wrapper {

    private static final String BROTLI = ".br";
    private static final String PREFIX = "/assets/";
    private static final String FOR_A_YEAR = "max-age=31536000, public, immutable";
    private static final Set<String> COMPRESSED_ALREADY = Set.of("font/woff2", "image/png");

    /** A part, and the same compressed at start-up, and compressed better when the pages were built. */
    private record Asset(String mediaType, ByteBuffer plain, @Nullable ByteBuffer gzip, @Nullable ByteBuffer brotli) {
    }

    private final Map<String, Asset> assets;

    AssetsInMemory(Handler next) {
        super(next);
        assets = all();
    }

    @Override
    public boolean handle(Request request, Response response, Callback callback) throws Exception {
        String path = Request.getPathInContext(request);
        boolean reading = request.getMethod().equals("GET") || request.getMethod().equals("HEAD");
        Asset asset = reading ? assets.get(path) : null;
        if (asset == null) {
            return super.handle(request, response, callback);
        }
        ByteBuffer brotli = request.getHeaders().contains(HttpHeader.ACCEPT_ENCODING, "br") ? asset.brotli() : null;
        ByteBuffer gzip = request.getHeaders().contains(HttpHeader.ACCEPT_ENCODING, "gzip") ? asset.gzip() : null;
        ByteBuffer body = (brotli != null ? brotli : gzip != null ? gzip : asset.plain()).duplicate();
        response.getHeaders().put(HttpHeader.CONTENT_TYPE, asset.mediaType());
        response.getHeaders().put(HttpHeader.CACHE_CONTROL, FOR_A_YEAR);
        response.getHeaders().put(HttpHeader.VARY, "Accept-Encoding");
        response.getHeaders().put(HttpHeader.CONTENT_LENGTH, body.remaining());
        if (brotli != null || gzip != null) {
            response.getHeaders().put(HttpHeader.CONTENT_ENCODING, brotli != null ? "br" : "gzip");
        }
        response.write(true, request.getMethod().equals("HEAD") ? ByteBuffer.allocate(0) : body, callback);
        return true;
    }

    private static Map<String, Asset> all() {
        try {
            return Arrays.stream(new PathMatchingResourcePatternResolver().getResources("classpath*:static" + PREFIX + "*"))
                    .filter(part -> !String.valueOf(part.getFilename()).endsWith(BROTLI))
                    .collect(Collectors.toUnmodifiableMap(part -> PREFIX + part.getFilename(), AssetsInMemory::read));
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    private static Asset read(Resource part) {
        try {
            String name = String.valueOf(part.getFilename());
            byte[] plain = part.getContentAsByteArray();
            String type = name.endsWith(".mjs") || name.endsWith(".js") ? "text/javascript"
                    : MediaTypeFactory.getMediaType(name).orElse(MediaType.APPLICATION_OCTET_STREAM).toString();
            return new Asset(type, outsideTheHeap(plain), COMPRESSED_ALREADY.contains(type) ? null : outsideTheHeap(gzip(plain)), brotli(part, name));
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    private static @Nullable ByteBuffer brotli(Resource part, String name) throws IOException {
        Resource compressed = part.createRelative(name + BROTLI);
        return compressed.exists() ? outsideTheHeap(compressed.getContentAsByteArray()) : null;
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
