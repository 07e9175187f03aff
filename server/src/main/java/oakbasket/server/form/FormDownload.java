package oakbasket.server.form;

import java.nio.charset.StandardCharsets;
import org.springframework.http.CacheControl;
import org.springframework.http.ContentDisposition;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/** A blank form as an HTTP answer: always a download, whatever it holds. */
public final class FormDownload {

    private FormDownload() {
    }

    /** The answer that carries a form. */
    public static ResponseEntity<byte[]> of(BlankForm form) {
        return ResponseEntity.ok().contentType(MediaType.parseMediaType(form.mediaType())).cacheControl(CacheControl.noCache().cachePrivate())
                .header("Content-Disposition", ContentDisposition.attachment().filename(form.name(), StandardCharsets.UTF_8).build().toString())
                .header("Content-Security-Policy", "default-src 'none'; sandbox").body(form.content());
    }
}
