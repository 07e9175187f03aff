package oakbasket.server.qr;

import io.nayuki.qrcodegen.QrCode;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import javax.imageio.ImageIO;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/** An address as a QR code (ISO/IEC 18004), with the quiet zone of four modules that readers need, and a quarter of it allowed to be damaged. */
public final class QrPicture {

    private static final int QUIET_MODULES = 4;
    private static final int PIXELS_A_MODULE = 8;

    private final QrCode code;

    public QrPicture(String address) {
        code = QrCode.encodeText(address, QrCode.Ecc.QUARTILE);
    }

    /** As SVG. */
    public byte[] svg() {
        int side = code.size + 2 * QUIET_MODULES;
        StringBuilder path = new StringBuilder();
        for (int y = 0; y < code.size; y++) {
            for (int x = 0; x < code.size; x++) {
                if (code.getModule(x, y)) {
                    path.append('M').append(x + QUIET_MODULES).append(',').append(y + QUIET_MODULES).append("h1v1h-1z");
                }
            }
        }
        StringWriter out = new StringWriter();
        try {
            XMLStreamWriter xml = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(out);
            xml.writeStartElement("svg");
            xml.writeDefaultNamespace("http://www.w3.org/2000/svg");
            xml.writeAttribute("viewBox", String.join(" ", "0", "0", Integer.toString(side), Integer.toString(side)));
            xml.writeAttribute("shape-rendering", "crispEdges");
            xml.writeEmptyElement("rect");
            xml.writeAttribute("width", Integer.toString(side));
            xml.writeAttribute("height", Integer.toString(side));
            xml.writeAttribute("fill", "#fff");
            xml.writeEmptyElement("path");
            xml.writeAttribute("d", path.toString());
            xml.writeEndElement();
        } catch (XMLStreamException impossible) {
            throw new IllegalStateException(impossible);
        }
        return out.toString().getBytes(StandardCharsets.US_ASCII);
    }

    /** As PNG. */
    public byte[] png() {
        int side = (code.size + 2 * QUIET_MODULES) * PIXELS_A_MODULE;
        BufferedImage image = new BufferedImage(side, side, BufferedImage.TYPE_BYTE_BINARY);
        Graphics2D pen = image.createGraphics();
        pen.setColor(Color.WHITE);
        pen.fillRect(0, 0, side, side);
        pen.setColor(Color.BLACK);
        for (int y = 0; y < code.size; y++) {
            for (int x = 0; x < code.size; x++) {
                if (code.getModule(x, y)) {
                    pen.fillRect((x + QUIET_MODULES) * PIXELS_A_MODULE, (y + QUIET_MODULES) * PIXELS_A_MODULE, PIXELS_A_MODULE, PIXELS_A_MODULE);
                }
            }
        }
        pen.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", out);
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return out.toByteArray();
    }
}
