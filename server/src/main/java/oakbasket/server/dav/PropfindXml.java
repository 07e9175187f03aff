package oakbasket.server.dav;

import java.io.InputStream;
import java.io.OutputStream;
import java.net.URLConnection;
import java.nio.charset.StandardCharsets;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import javax.xml.namespace.QName;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import javax.xml.stream.XMLStreamWriter;
import org.jspecify.annotations.Nullable;

/** Reads what a client asks about (RFC 4918, 9.1) and writes the answer piece by piece, however many things a folder holds. */
final class PropfindXml {

    private static final String DAV = "DAV:";
    private static final DateTimeFormatter HTTP_DATE = DateTimeFormatter.ofPattern("EEE, dd MMM yyyy HH:mm:ss 'GMT'", Locale.US).withZone(ZoneOffset.UTC);
    private static final List<String> ALL = List.of("creationdate", "displayname", "getcontentlength", "getcontenttype", "getetag", "getlastmodified", "resourcetype", "supportedlock", "lockdiscovery");
    private static final int MOST_PROPERTIES = 100;
    private static final XMLInputFactory IN = XMLInputFactory.newDefaultFactory();

    static {
        IN.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        IN.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    }

    /**
     * What is asked.
     *
     * @param names whether only the names of properties are wanted
     * @param properties those that are asked for; null means all
     */
    record Asked(boolean names, @Nullable List<QName> properties) {
    }

    private final XMLStreamWriter xml;
    private final Asked asked;

    PropfindXml(OutputStream out, Asked asked) throws XMLStreamException {
        this.xml = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(out, StandardCharsets.UTF_8.name());
        this.asked = asked;
        xml.writeStartDocument(StandardCharsets.UTF_8.name(), "1.0");
        xml.writeStartElement("D", "multistatus", DAV);
        xml.writeNamespace("D", DAV);
    }

    /**
     * Reads the body of a PROPFIND; an empty one asks for everything.
     *
     * @throws XMLStreamException when it is no XML, or not of this kind
     */
    static Asked read(InputStream body, boolean empty) throws XMLStreamException {
        if (empty) {
            return new Asked(false, null);
        }
        XMLStreamReader in = IN.createXMLStreamReader(body);
        List<QName> properties = null;
        boolean names = false;
        boolean all = false;
        int depth = 0;
        while (in.hasNext()) {
            int event = in.next();
            if (event == XMLStreamConstants.START_ELEMENT) {
                depth++;
                if (in.getName().getNamespaceURI() == null || in.getNamespaceContext() == null) {
                    throw new XMLStreamException();
                }
                String name = in.getLocalName();
                if (depth == 1 && !in.getName().equals(new QName(DAV, "propfind"))) {
                    throw new XMLStreamException();
                } else if (depth == 2) {
                    names |= name.equals("propname");
                    all |= name.equals("allprop");
                    properties = name.equals("prop") ? new ArrayList<>() : properties;
                } else if (depth == 3 && properties != null && properties.size() < MOST_PROPERTIES) {
                    properties.add(in.getName());
                }
            } else if (event == XMLStreamConstants.END_ELEMENT) {
                depth--;
            }
        }
        if (!names && !all && properties == null) {
            throw new XMLStreamException();
        }
        return new Asked(names, all || names ? null : properties);
    }

    /** Names the condition that a request did not meet (RFC 4918, 16). */
    static void writeError(OutputStream out, String condition) throws XMLStreamException {
        XMLStreamWriter error = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(out, StandardCharsets.UTF_8.name());
        error.writeStartDocument(StandardCharsets.UTF_8.name(), "1.0");
        error.writeStartElement("D", "error", DAV);
        error.writeNamespace("D", DAV);
        error.writeEmptyElement(DAV, condition);
        error.writeEndDocument();
        error.close();
    }

    /** Tells of one thing. */
    void tell(String href, DavTree.Node node) throws XMLStreamException {
        xml.writeStartElement(DAV, "response");
        text("href", href);
        List<QName> wanted = Objects.requireNonNullElse(asked.properties(), ALL.stream().map(name -> new QName(DAV, name)).toList());
        List<QName> has = wanted.stream().filter(name -> has(name, node)).toList();
        List<QName> lacks = asked.properties() == null ? List.of() : wanted.stream().filter(name -> !has(name, node)).toList();
        if (!has.isEmpty() || lacks.isEmpty()) {
            begin();
            for (QName name : has) {
                property(name.getLocalPart(), node);
            }
            end("HTTP/1.1 200 OK");
        }
        if (!lacks.isEmpty()) {
            begin();
            for (QName name : lacks) {
                if (name.getNamespaceURI().isEmpty()) {
                    xml.writeEmptyElement(name.getLocalPart());
                } else {
                    xml.writeEmptyElement("X", name.getLocalPart(), name.getNamespaceURI());
                    xml.writeNamespace("X", name.getNamespaceURI());
                }
            }
            end("HTTP/1.1 404 Not Found");
        }
        xml.writeEndElement();
    }

    private void begin() throws XMLStreamException {
        xml.writeStartElement(DAV, "propstat");
        xml.writeStartElement(DAV, "prop");
    }

    private void end(String status) throws XMLStreamException {
        xml.writeEndElement();
        text("status", status);
        xml.writeEndElement();
    }

    private static boolean has(QName name, DavTree.Node node) {
        return name.getNamespaceURI().equals(DAV) && ALL.contains(name.getLocalPart()) && !(node.folder() && name.getLocalPart().startsWith("getcontent"));
    }

    private void property(String name, DavTree.Node node) throws XMLStreamException {
        if (asked.names() || name.equals("supportedlock") || name.equals("lockdiscovery")) {
            xml.writeEmptyElement(DAV, name);
            return;
        }
        switch (name) {
            case "creationdate" -> text(name, DateTimeFormatter.ISO_INSTANT.format(node.changedAt()));
            case "displayname" -> text(name, node.name());
            case "getcontentlength" -> text(name, Long.toString(node.bytes()));
            case "getcontenttype" -> text(name, mediaType(node.name()));
            case "getetag" -> text(name, node.tag());
            case "getlastmodified" -> text(name, HTTP_DATE.format(node.changedAt()));
            default -> {
                xml.writeStartElement(DAV, name);
                if (node.folder()) {
                    xml.writeEmptyElement(DAV, "collection");
                }
                xml.writeEndElement();
            }
        }
    }

    static String mediaType(String name) {
        String guessed = URLConnection.guessContentTypeFromName(name);
        return guessed == null ? "application/octet-stream" : guessed;
    }

    private void text(String name, String words) throws XMLStreamException {
        xml.writeStartElement(DAV, name);
        xml.writeCharacters(words.replaceAll("[\\x00-\\x08\\x0B\\x0C\\x0E-\\x1F\\uFFFE\\uFFFF]", "_"));
        xml.writeEndElement();
    }

    void end() throws XMLStreamException {
        xml.writeEndElement();
        xml.writeEndDocument();
        xml.close();
    }
}
