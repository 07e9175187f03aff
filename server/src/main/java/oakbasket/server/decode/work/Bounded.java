package oakbasket.server.decode.work;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.Collections;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** Reads parts of archives and XML that a stranger made, within bounds: no more bytes than these, no entities, nothing from elsewhere. */
final class Bounded {

    /** The most bytes that come out of one archive, however small it is. */
    static final long MOST_BYTES = 48L << 20;
    private static final int MOST_ENTRIES = 2_000;
    private static final int BUFFER = 1 << 14;

    private static final XMLInputFactory XML = XMLInputFactory.newDefaultFactory();

    static {
        XML.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        XML.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        XML.setProperty(XMLInputFactory.IS_COALESCING, false);
    }

    private Bounded() {
    }

    /** A stream that breaks off with an error after so many bytes. */
    static InputStream stream(InputStream in, long most) {
        return new FilterInputStream(in) {
            private long left = most;

            @Override
            public int read() throws IOException {
                int read = super.read();
                count(read < 0 ? 0 : 1);
                return read;
            }

            @Override
            public int read(byte[] into, int offset, int length) throws IOException {
                int read = super.read(into, offset, length);
                count(Math.max(0, read));
                return read;
            }

            private void count(int read) throws IOException {
                left -= read;
                if (left < 0) {
                    throw new IOException("more than " + most);
                }
            }
        };
    }

    static XMLStreamReader xml(InputStream in) throws XMLStreamException {
        return XML.createXMLStreamReader(in);
    }

    /** Reads an archive to its end once and throws when more comes out of it than is bearable; what it says of itself is not believed. */
    static void weigh(Path archive) throws IOException {
        try (ZipFile zip = new ZipFile(archive.toFile())) {
            if (zip.size() > MOST_ENTRIES) {
                throw new IOException("more than " + MOST_ENTRIES);
            }
            long left = MOST_BYTES;
            byte[] buffer = new byte[BUFFER];
            for (ZipEntry entry : Collections.list(zip.entries())) {
                try (InputStream in = stream(zip.getInputStream(entry), left)) {
                    for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
                        left -= read;
                    }
                }
            }
        }
    }
}
