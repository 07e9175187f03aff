package oakbasket.server.decode.work;

import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Iterator;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import oakbasket.server.problem.Problem;

/**
 * Makes a logo of whatever picture somebody chose: read, brought to its size and written anew as PNG, so that nothing of the file but its pixels is ever shown to anybody.
 * How large it is is looked at before any pixel is read. SVG is not taken: it can hold script and load from elsewhere.
 */
final class LogoMaker {

    /** The longest sides of a logo as it is kept, in pixels; it is shown at half of that. */
    static final int WIDEST = 480;
    static final int HIGHEST = 160;
    private static final int HEAD_BYTES = 1_000;
    private static final long MOST_PIXELS = 16_000_000;

    private LogoMaker() {
    }

    /** @throws Problem with status 422 at the field {@code logo} when it cannot be used */
    static MakeLogo.Logo of(Path file) {
        try (ImageInputStream in = ImageIO.createImageInputStream(file.toFile())) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                throw Problem.field("logo", Files.size(file) == 0 ? "logo-empty" : svg(file) ? "logo-svg" : "logo-kind");
            }
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                int width = reader.getWidth(0);
                int height = reader.getHeight(0);
                if ((long) width * height > MOST_PIXELS || width < 1 || height < 1) {
                    throw Problem.field("logo", "logo-pixels", MOST_PIXELS / 1_000_000);
                }
                return fitted(reader.read(0), width, height);
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException unreadable) {
            if (unreadable instanceof Problem problem) {
                throw problem;
            }
            throw Problem.field("logo", "logo-damaged");
        }
    }

    private static boolean svg(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return new String(in.readNBytes(HEAD_BYTES), StandardCharsets.UTF_8).contains("<svg");
        }
    }

    private static MakeLogo.Logo fitted(BufferedImage picture, int width, int height) throws IOException {
        double share = Math.min(1, Math.min(WIDEST / (double) width, HIGHEST / (double) height));
        int wide = Math.max(1, (int) Math.round(width * share));
        int high = Math.max(1, (int) Math.round(height * share));
        BufferedImage made = new BufferedImage(wide, high, BufferedImage.TYPE_INT_ARGB);
        Graphics2D pen = made.createGraphics();
        pen.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BICUBIC);
        pen.setRenderingHint(RenderingHints.KEY_RENDERING, RenderingHints.VALUE_RENDER_QUALITY);
        pen.drawImage(picture, 0, 0, wide, high, null);
        pen.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(made, "png", out);
        return new MakeLogo.Logo(out.toByteArray(), wide, high);
    }
}
