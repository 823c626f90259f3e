package org.youngtally.documents.mark;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Optional;
import javax.xml.transform.TransformerException;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.common.PDMetadata;
import org.apache.xmpbox.XMPMetadata;
import org.apache.xmpbox.schema.DublinCoreSchema;
import org.apache.xmpbox.xml.DomXmpParser;
import org.apache.xmpbox.xml.XmpParsingException;
import org.apache.xmpbox.xml.XmpSerializer;
import org.youngtally.documents.UnreadableDocument;

/** The metadata of a PDF, with the identifier as Dublin Core in XMP (ISO 16684-1), added behind what the file holds. */
final class PdfMark implements FileMark {

    @Override
    public String place() {
        return "its metadata (dc:identifier)";
    }

    @Override
    public Optional<String> borne(byte[] bytes) throws UnreadableDocument {
        try (PDDocument document = open(bytes)) {
            return Optional.ofNullable(metadata(document).getDublinCoreSchema()).map(DublinCoreSchema::getIdentifier);
        } catch (IOException e) {
            throw unreadable(e);
        }
    }

    private static PDDocument open(byte[] bytes) throws UnreadableDocument {
        try {
            PDDocument document = Loader.loadPDF(bytes);
            if (document.isEncrypted() || !document.getSignatureDictionaries().isEmpty()) {
                boolean signed = !document.isEncrypted();
                document.close();
                throw new UnreadableDocument(
                        signed ? "The PDF is signed, and the signature would be lost" : "The PDF is encrypted",
                        signed ? "the file before it was signed" : "the file without a password");
            }
            return document;
        } catch (IOException e) {
            throw unreadable(e);
        }
    }

    private static UnreadableDocument unreadable(Exception e) {
        return new UnreadableDocument(
                "The file is no PDF that can be read (" + e.getMessage() + ")",
                "a PDF that opens without a password",
                e);
    }

    private static XMPMetadata metadata(PDDocument document) throws IOException, UnreadableDocument {
        PDMetadata held = document.getDocumentCatalog().getMetadata();
        if (held == null) return XMPMetadata.createXMPMetadata();
        try {
            var parser = new DomXmpParser();
            parser.setStrictParsing(false);
            return parser.parse(held.toByteArray());
        } catch (XmpParsingException e) {
            throw new UnreadableDocument(
                    "The metadata of the PDF cannot be read (" + e.getMessage() + ")",
                    "the file with metadata by ISO 16684, or without any",
                    e);
        }
    }

    @Override
    public byte[] marked(byte[] bytes, String identifier) throws UnreadableDocument {
        try (PDDocument document = open(bytes)) {
            XMPMetadata metadata = metadata(document);
            DublinCoreSchema core = metadata.getDublinCoreSchema() == null
                    ? metadata.createAndAddDublinCoreSchema()
                    : metadata.getDublinCoreSchema();
            core.setIdentifier(identifier);
            var packet = new ByteArrayOutputStream();
            new XmpSerializer().serialize(metadata, packet, true);
            var held = new PDMetadata(document);
            held.importXMPMetadata(packet.toByteArray());
            document.getDocumentCatalog().setMetadata(held);
            document.getDocumentCatalog().getCOSObject().setNeedToBeUpdated(true);
            var out = new ByteArrayOutputStream();
            document.saveIncremental(out);
            return out.toByteArray();
        } catch (IOException | TransformerException e) {
            throw unreadable(e);
        }
    }
}
