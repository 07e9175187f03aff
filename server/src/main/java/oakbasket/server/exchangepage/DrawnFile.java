package oakbasket.server.exchangepage;

import java.awt.Color;
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
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import oakbasket.server.problem.Problem;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.io.IOUtils;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.ImageType;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.springframework.stereotype.Component;

/**
 * Draws files for those who may see them and not take them away: a picture of each page, in the size of a screen, and the beginning of a text. The file itself never leaves.
 * Few are drawn at once, and how large they are is looked at before any pixel is.
 */
@Component
class DrawnFile {

    /** What is shown. @param pages how many there are; 1 of what has none */
    record Drawn(byte[] content, String mediaType, int pages) {
    }

    private static final long LARGEST = 64L << 20;
    private static final long MOST_PIXELS = 40_000_000;
    private static final int LONGEST_SIDE = 1_400;
    private static final int MOST_TEXT_BYTES = 60_000;
    private static final int AT_ONCE = 2;
    private static final long WAIT_SECONDS = 15;

    private final Semaphore places = new Semaphore(AT_ONCE);

    /** How a file of a media type, which was found by its content, can be looked at. */
    static ExchangePage.Look look(String mediaType) {
        return switch (mediaType) {
            case "image/png", "image/jpeg", "image/gif" -> ExchangePage.Look.PICTURE;
            case "application/pdf" -> ExchangePage.Look.PDF;
            default -> mediaType.startsWith("text/") || mediaType.endsWith("xml") || mediaType.endsWith("json") ? ExchangePage.Look.TEXT : ExchangePage.Look.NONE;
        };
    }

    /**
     * Draws a page.
     *
     * @param page from 1
     * @throws Problem with status 422 when it cannot be drawn, 503 when too many are drawn at this moment
     */
    Drawn draw(Path file, String mediaType, int page) {
        try {
            return switch (look(mediaType)) {
                case TEXT -> new Drawn(text(file), "text/plain;charset=UTF-8", 1);
                case PICTURE, PDF -> drawn(file, mediaType, page);
                case NONE -> throw Problem.refused("no-preview");
            };
        } catch (IOException damaged) {
            throw Problem.refused("no-preview");
        }
    }

    private Drawn drawn(Path file, String mediaType, int page) throws IOException {
        if (Files.size(file) > LARGEST) {
            throw Problem.refused("no-preview");
        }
        try {
            if (!places.tryAcquire(WAIT_SECONDS, TimeUnit.SECONDS)) {
                throw Problem.of(Problem.Kind.TOO_MANY, "too-many", 1);
            }
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw Problem.of(Problem.Kind.TOO_MANY, "too-many", 1);
        }
        try {
            return mediaType.equals("application/pdf") ? pdf(file, page) : picture(file);
        } catch (RuntimeException damaged) {
            if (damaged instanceof Problem problem) {
                throw problem;
            }
            throw Problem.refused("no-preview");
        } finally {
            places.release();
        }
    }

    private static Drawn pdf(Path file, int page) throws IOException {
        try (PDDocument document = Loader.loadPDF(file.toFile(), "", null, null, IOUtils.createTempFileOnlyStreamCache())) {
            int pages = document.getNumberOfPages();
            if (page < 1 || page > pages) {
                throw Problem.notFound("no-file");
            }
            var box = document.getPage(page - 1).getCropBox();
            float scale = LONGEST_SIDE / Math.max(1, Math.max(box.getWidth(), box.getHeight()));
            return new Drawn(png(new PDFRenderer(document).renderImage(page - 1, scale, ImageType.RGB)), "image/png", pages);
        }
    }

    private static Drawn picture(Path file) throws IOException {
        try (ImageInputStream in = ImageIO.createImageInputStream(file.toFile())) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                throw Problem.refused("no-preview");
            }
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                int width = reader.getWidth(0);
                int height = reader.getHeight(0);
                if (width < 1 || height < 1 || (long) width * height > MOST_PIXELS) {
                    throw Problem.refused("no-preview");
                }
                // Of a large picture only every so manieth pixel is read, so that it never stands in memory whole.
                int every = Math.max(1, Math.max(width, height) / LONGEST_SIDE);
                var how = reader.getDefaultReadParam();
                how.setSourceSubsampling(every, every, 0, 0);
                return new Drawn(png(fitted(reader.read(0, how))), "image/png", 1);
            } finally {
                reader.dispose();
            }
        }
    }

    private static BufferedImage fitted(BufferedImage picture) {
        double share = Math.min(1, LONGEST_SIDE / (double) Math.max(picture.getWidth(), picture.getHeight()));
        int wide = Math.max(1, (int) Math.round(picture.getWidth() * share));
        int high = Math.max(1, (int) Math.round(picture.getHeight() * share));
        BufferedImage made = new BufferedImage(wide, high, BufferedImage.TYPE_INT_RGB);
        Graphics2D pen = made.createGraphics();
        pen.setColor(Color.WHITE);
        pen.fillRect(0, 0, wide, high);
        pen.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BILINEAR);
        pen.drawImage(picture, 0, 0, wide, high, null);
        pen.dispose();
        return made;
    }

    private static byte[] png(BufferedImage picture) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(picture, "png", out);
        return out.toByteArray();
    }

    /** The beginning of a text; what is no UTF-8 is read as if it were, with marks for what cannot be. */
    private static byte[] text(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return new String(in.readNBytes(MOST_TEXT_BYTES), StandardCharsets.UTF_8).getBytes(StandardCharsets.UTF_8);
        }
    }
}
