package oakbasket.server.decode.work;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.apache.fontbox.FontBoxFont;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.apache.pdfbox.pdmodel.font.CIDFontMapping;
import org.apache.pdfbox.pdmodel.font.FontMapper;
import org.apache.pdfbox.pdmodel.font.FontMapping;
import org.apache.pdfbox.pdmodel.font.PDCIDSystemInfo;
import org.apache.pdfbox.pdmodel.font.PDFontDescriptor;
import org.jspecify.annotations.Nullable;

/** Stands in for fonts that a PDF names and does not hold, with those that ship: so that a child need not go through all fonts of the machine, which takes seconds, and a page looks the same everywhere. */
final class ShippedFonts implements FontMapper {

    static final String FOLDER = "/net/sf/jasperreports/fonts/dejavu/";

    private final Map<String, TrueTypeFont> read = new HashMap<>();

    @Override
    public FontMapping<TrueTypeFont> getTrueTypeFont(@Nullable String name, @Nullable PDFontDescriptor about) {
        return new FontMapping<>(font(name, about), true);
    }

    @Override
    public FontMapping<FontBoxFont> getFontBoxFont(@Nullable String name, @Nullable PDFontDescriptor about) {
        return new FontMapping<>(font(name, about), true);
    }

    @Override
    public CIDFontMapping getCIDFont(@Nullable String name, @Nullable PDFontDescriptor about, @Nullable PDCIDSystemInfo system) {
        return new CIDFontMapping(null, font(name, about), true);
    }

    private TrueTypeFont font(@Nullable String name, @Nullable PDFontDescriptor about) {
        String called = String.valueOf(name).toLowerCase(Locale.ROOT);
        boolean fixed = called.contains("courier") || called.contains("mono") || about != null && about.isFixedPitch();
        boolean serif = called.contains("times") || called.contains("serif") && !called.contains("sans") || about != null && about.isSerif();
        boolean bold = called.contains("bold") || called.contains("black") || about != null && about.isForceBold();
        String family = fixed ? "DejaVuSansMono" : serif ? "DejaVuSerif" : "DejaVuSans";
        return read.computeIfAbsent(family + (bold ? "-Bold.ttf" : ".ttf"), ShippedFonts::read);
    }

    private static TrueTypeFont read(String file) {
        try (InputStream in = Objects.requireNonNull(ShippedFonts.class.getResourceAsStream(FOLDER + file))) {
            return new TTFParser().parse(new RandomAccessReadBuffer(in));
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }
}
