package oakbasket.server.demo;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.imageio.ImageIO;

/** Makes small real files of every kind the demo needs. */
final class DemoFiles {

    private DemoFiles() {
    }

    /** A one-page PDF with a heading and lines of text. */
    static byte[] pdf(String heading, List<String> lines) {
        StringBuilder page = new StringBuilder("BT /F1 20 Tf 60 770 Td (").append(escaped(heading)).append(") Tj ET\n0.48 0.35 0.2 RG 60 755 m 535 755 l S\n");
        int y = 725;
        for (String line : lines) {
            page.append("BT /F2 12 Tf 60 ").append(y).append(" Td (").append(escaped(line)).append(") Tj ET\n");
            y -= 22;
        }
        List<String> objects = List.of("<< /Type /Catalog /Pages 2 0 R >>", "<< /Type /Pages /Kids [3 0 R] /Count 1 >>",
                "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Resources << /Font << /F1 5 0 R /F2 6 0 R >> >> >>",
                "<< /Length " + page.length() + " >>\nstream\n" + page + "endstream",
                "<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica-Bold >>", "<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>");
        StringBuilder pdf = new StringBuilder("%PDF-1.4\n");
        List<Integer> places = new ArrayList<>();
        for (int i = 0; i < objects.size(); i++) {
            places.add(pdf.length());
            pdf.append(i + 1).append(" 0 obj\n").append(objects.get(i)).append("\nendobj\n");
        }
        int table = pdf.length();
        pdf.append("xref\n0 ").append(objects.size() + 1).append("\n0000000000 65535 f \n");
        places.forEach(place -> pdf.append("%010d 00000 n \n".formatted(place)));
        pdf.append("trailer << /Size ").append(objects.size() + 1).append(" /Root 1 0 R >>\nstartxref\n").append(table).append("\n%%EOF\n");
        return pdf.toString().getBytes(StandardCharsets.ISO_8859_1);
    }

    /** A landscape of a riverbank, different for each seed. */
    static byte[] photo(long seed, String format) {
        Random random = new Random(seed);
        BufferedImage image = new BufferedImage(640, 420, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setColor(new Color(200 + random.nextInt(30), 215 + random.nextInt(20), 215));
        g.fillRect(0, 0, 640, 420);
        for (int ridge = 0; ridge < 4; ridge++) {
            g.setColor(new Color(120 - ridge * 20, 140 - ridge * 15, 90 - ridge * 12));
            Path2D hill = new Path2D.Double();
            hill.moveTo(0, 420);
            for (int x = 0; x <= 640; x += 40) {
                hill.lineTo(x, 150 + ridge * 55 + random.nextInt(50));
            }
            hill.lineTo(640, 420);
            hill.closePath();
            g.fill(hill);
        }
        g.setColor(new Color(110, 145, 150));
        Path2D river = new Path2D.Double();
        double bend = random.nextDouble() * 200;
        river.moveTo(300 + bend / 2, 290);
        river.curveTo(200 + bend, 330, 420 - bend, 360, 220 + bend, 420);
        river.lineTo(420 + bend, 420);
        river.curveTo(520 - bend, 360, 260 + bend, 330, 325 + bend / 2, 290);
        river.closePath();
        g.fill(river);
        g.dispose();
        return bytes(out -> ImageIO.write(image, format, out));
    }

    /** A workbook with one sheet of text cells. */
    static byte[] workbook(List<List<String>> rows) {
        StringBuilder sheet = new StringBuilder("<worksheet xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><sheetData>");
        for (List<String> row : rows) {
            sheet.append("<row>");
            row.forEach(cell -> sheet.append("<c t=\"inlineStr\"><is><t>").append(cell).append("</t></is></c>"));
            sheet.append("</row>");
        }
        sheet.append("</sheetData></worksheet>");
        String relations = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
        String packages = "http://schemas.openxmlformats.org/package/2006/";
        String main = "application/vnd.openxmlformats-officedocument.spreadsheetml.";
        return bytes(out -> {
            try (ZipOutputStream zip = new ZipOutputStream(out)) {
                part(zip, "[Content_Types].xml", "<Types xmlns=\"" + packages + "content-types\"><Default Extension=\"rels\" ContentType=\"application/vnd.openxmlformats-package.relationships+xml\"/>"
                        + "<Override PartName=\"/xl/workbook.xml\" ContentType=\"" + main + "sheet.main+xml\"/><Override PartName=\"/xl/worksheets/sheet1.xml\" ContentType=\"" + main + "worksheet+xml\"/></Types>");
                part(zip, "_rels/.rels", "<Relationships xmlns=\"" + packages + "relationships\"><Relationship Id=\"r1\" Type=\"" + relations + "/officeDocument\" Target=\"xl/workbook.xml\"/></Relationships>");
                part(zip, "xl/workbook.xml", "<workbook xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\" xmlns:r=\"" + relations + "\"><sheets><sheet name=\"Survey\" sheetId=\"1\" r:id=\"r1\"/></sheets></workbook>");
                part(zip, "xl/_rels/workbook.xml.rels", "<Relationships xmlns=\"" + packages + "relationships\"><Relationship Id=\"r1\" Type=\"" + relations + "/worksheet\" Target=\"worksheets/sheet1.xml\"/></Relationships>");
                part(zip, "xl/worksheets/sheet1.xml", sheet.toString());
            }
        });
    }

    /** A GPX track of a walk along a river. */
    static byte[] track(long seed) {
        Random random = new Random(seed);
        StringBuilder gpx = new StringBuilder("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<gpx version=\"1.1\" creator=\"Fennbrook\" xmlns=\"http://www.topografix.com/GPX/1/1\"><trk><name>Reach ")
                .append(seed).append("</name><trkseg>\n");
        double lat = 52.1 + random.nextDouble() / 10;
        double lon = -1.2 + random.nextDouble() / 10;
        for (int i = 0; i < 60; i++) {
            gpx.append("<trkpt lat=\"%.6f\" lon=\"%.6f\"/>\n".formatted(lat += random.nextDouble() / 2000, lon += random.nextDouble() / 2000));
        }
        return gpx.append("</trkseg></trk></gpx>\n").toString().getBytes(StandardCharsets.UTF_8);
    }

    /** Plain text. */
    static byte[] text(String... lines) {
        return String.join("\n", lines).concat("\n").getBytes(StandardCharsets.UTF_8);
    }

    private interface Writing {
        void to(ByteArrayOutputStream out) throws IOException;
    }

    private static byte[] bytes(Writing writing) {
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            writing.to(out);
            return out.toByteArray();
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    private static void part(ZipOutputStream zip, String name, String content) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(("<?xml version=\"1.0\" encoding=\"UTF-8\" standalone=\"yes\"?>\n" + content).getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
    }

    private static String escaped(String text) {
        return text.replace("\\", "\\\\").replace("(", "\\(").replace(")", "\\)");
    }
}
