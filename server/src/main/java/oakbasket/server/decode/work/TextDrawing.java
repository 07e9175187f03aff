package oakbasket.server.decode.work;

import java.awt.Color;
import java.awt.Font;
import java.awt.FontFormatException;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.font.FontRenderContext;
import java.awt.font.LineBreakMeasurer;
import java.awt.font.TextAttribute;
import java.awt.font.TextLayout;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.text.AttributedString;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import oakbasket.server.problem.Problem;

/** Draws the beginning of a text as pages, in whatever direction it is written (UAX #9), so that its characters are not given along. */
final class TextDrawing {

    private static final String FONT = ShippedFonts.FOLDER + "DejaVuSans.ttf";
    private static final int MOST_BYTES = 60_000;
    /** So narrow and so large that it can be read on a telephone without making it larger. */
    private static final int WIDE = 560;
    private static final int HIGH = Drawing.LONGEST_SIDE;
    private static final int MARGIN = 36;
    private static final float SIZE = 24;
    private static final float LINE = 34;
    private static final int LINES_A_PAGE = (int) ((HIGH - 2 * MARGIN) / LINE);
    private static final Color INK = new Color(0x3A, 0x2F, 0x25);

    private TextDrawing() {
    }

    static DrawPage.Drawn page(Path file, int page) throws IOException {
        byte[] bytes;
        try (InputStream in = Files.newInputStream(file)) {
            bytes = in.readNBytes(MOST_BYTES);
        }
        Font font = font();
        // What is no UTF-8 is read as if it were, with marks for what cannot be.
        List<TextLayout> lines = lines(new String(bytes, StandardCharsets.UTF_8), font);
        int pages = Math.max(1, (lines.size() + LINES_A_PAGE - 1) / LINES_A_PAGE);
        if (page < 1 || page > pages) {
            throw Problem.notFound("no-file");
        }
        return new DrawPage.Drawn(Drawing.png(drawn(lines.subList((page - 1) * LINES_A_PAGE, Math.min(lines.size(), page * LINES_A_PAGE)))), pages);
    }

    private static BufferedImage drawn(List<TextLayout> lines) {
        BufferedImage made = new BufferedImage(WIDE, HIGH, BufferedImage.TYPE_BYTE_GRAY);
        Graphics2D pen = made.createGraphics();
        pen.setColor(Color.WHITE);
        pen.fillRect(0, 0, WIDE, HIGH);
        pen.setColor(INK);
        pen.setRenderingHint(RenderingHints.KEY_TEXT_ANTIALIASING, RenderingHints.VALUE_TEXT_ANTIALIAS_ON);
        float y = MARGIN + SIZE;
        for (TextLayout line : lines) {
            line.draw(pen, line.isLeftToRight() ? MARGIN : WIDE - MARGIN - line.getAdvance(), y);
            y += LINE;
        }
        pen.dispose();
        return made;
    }

    private static List<TextLayout> lines(String text, Font font) {
        FontRenderContext context = new FontRenderContext(null, true, true);
        List<TextLayout> lines = new ArrayList<>();
        for (String paragraph : text.lines().map(line -> line.replace("\t", "    ").replaceAll("\\p{Cc}", "")).toList()) {
            if (paragraph.isEmpty()) {
                lines.add(new TextLayout(" ", font, context));
                continue;
            }
            AttributedString styled = new AttributedString(paragraph);
            styled.addAttribute(TextAttribute.FONT, font);
            LineBreakMeasurer measurer = new LineBreakMeasurer(styled.getIterator(), context);
            while (measurer.getPosition() < paragraph.length()) {
                lines.add(measurer.nextLayout(WIDE - 2f * MARGIN));
            }
        }
        return lines;
    }

    private static Font font() throws IOException {
        try (InputStream in = Objects.requireNonNull(TextDrawing.class.getResourceAsStream(FONT))) {
            return Font.createFont(Font.TRUETYPE_FONT, in).deriveFont(SIZE);
        } catch (FontFormatException broken) {
            throw new IOException(broken);
        }
    }
}
