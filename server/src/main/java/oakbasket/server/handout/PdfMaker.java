package oakbasket.server.handout;

import com.openhtmltopdf.bidi.support.ICUBidiReorderer;
import com.openhtmltopdf.bidi.support.ICUBidiSplitter;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.util.XRLog;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Locale;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.logging.Level;
import oakbasket.server.problem.Problem;
import org.springframework.core.io.ClassPathResource;
import org.springframework.stereotype.Component;

/** Makes PDF of XHTML, one at a time; it reads nothing but what stands in the text itself and the fonts that ship. */
@Component
class PdfMaker {

    private static final String FONTS = "net/sf/jasperreports/fonts/dejavu/";
    private static final long LONGEST_WAIT_SECONDS = 20;

    private final Semaphore turn = new Semaphore(1, true);

    PdfMaker() {
        XRLog.listRegisteredLoggers().forEach(logger -> XRLog.setLevel(logger, Level.WARNING));
    }

    /**
     * The PDF.
     *
     * @throws Problem with status 503 when others have to be served first for too long
     */
    byte[] make(String xhtml) {
        boolean mine = false;
        try {
            mine = turn.tryAcquire(LONGEST_WAIT_SECONDS, TimeUnit.SECONDS);
            if (!mine) {
                throw Problem.of(Problem.Kind.BUSY, "busy");
            }
            return render(xhtml);
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw Problem.of(Problem.Kind.BUSY, "busy");
        } finally {
            if (mine) {
                turn.release();
            }
        }
    }

    private static byte[] render(String xhtml) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PdfRendererBuilder builder = new PdfRendererBuilder();
        builder.useFastMode();
        builder.useUriResolver((base, uri) -> uri.toLowerCase(Locale.ROOT).startsWith("data:image/png;base64,") ? uri : null);
        builder.useUnicodeBidiSplitter(new ICUBidiSplitter.ICUBidiSplitterFactory());
        builder.useUnicodeBidiReorderer(new ICUBidiReorderer());
        builder.defaultTextDirection(PdfRendererBuilder.TextDirection.LTR);
        builder.useFont(() -> font("DejaVuSans.ttf"), "Hand", 400, PdfRendererBuilder.FontStyle.NORMAL, true);
        builder.useFont(() -> font("DejaVuSans-Bold.ttf"), "Hand", 700, PdfRendererBuilder.FontStyle.NORMAL, true);
        builder.useFont(() -> font("DejaVuSans-Bold.ttf"), "Hand Head", 700, PdfRendererBuilder.FontStyle.NORMAL, true);
        builder.useFont(() -> font("DejaVuSansMono.ttf"), "Hand Mono", 400, PdfRendererBuilder.FontStyle.NORMAL, true);
        builder.withHtmlContent(xhtml, null);
        builder.toStream(out);
        builder.run();
        return out.toByteArray();
    }

    private static InputStream font(String name) {
        try {
            return new ClassPathResource(FONTS + name).getInputStream();
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }
}
