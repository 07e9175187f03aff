package oakbasket.server.decode.work;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Iterator;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import oakbasket.server.problem.Problem;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.io.IOUtils;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.font.FontMappers;
import org.apache.pdfbox.rendering.ImageType;
import org.apache.pdfbox.rendering.PDFRenderer;

/** Draws pages of PDFs, and pictures. How large something is is looked at before any pixel is. */
final class Drawing {

    static final int LONGEST_SIDE = 1_400;
    private static final long MOST_PIXELS = 40_000_000;

    static {
        FontMappers.set(new ShippedFonts());
    }

    private Drawing() {
    }

    static DrawPage.Drawn pdf(Path file, int page) throws IOException {
        try (PDDocument document = Loader.loadPDF(file.toFile(), "", null, null, IOUtils.createTempFileOnlyStreamCache())) {
            int pages = document.getNumberOfPages();
            if (page < 1 || page > pages) {
                throw Problem.notFound("no-file");
            }
            var box = document.getPage(page - 1).getCropBox();
            float scale = LONGEST_SIDE / Math.max(1, Math.max(box.getWidth(), box.getHeight()));
            return new DrawPage.Drawn(png(new PDFRenderer(document).renderImage(page - 1, scale, ImageType.RGB)), pages);
        }
    }

    static DrawPage.Drawn picture(Path file) throws IOException {
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
                return new DrawPage.Drawn(png(fitted(reader.read(0, how))), 1);
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

    static byte[] png(BufferedImage picture) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(picture, "png", out);
        return out.toByteArray();
    }
}
