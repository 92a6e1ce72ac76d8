package yarrowmark.server.writeup;

import java.io.StringReader;
import java.io.StringWriter;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import javax.xml.stream.XMLStreamWriter;
import yarrowmark.server.platform.Problem;

/**
 * A drawing written anew from the few elements and attributes that draw. Whatever could act, load or be told apart by a
 * browser only is not left out in silence where it matters: scripts, links, styles and foreign content go, shapes and text
 * stay.
 */
final class SafeSvg {
    private static final int DEEPEST = 40;
    private static final int MOST_ELEMENTS = 20_000;

    private static final Set<String> ELEMENTS = Set.of(
            "svg",
            "g",
            "path",
            "rect",
            "line",
            "circle",
            "ellipse",
            "polyline",
            "polygon",
            "text",
            "tspan",
            "title",
            "desc");

    private static final Set<String> ATTRIBUTES = Set.of(
            "viewBox",
            "width",
            "height",
            "x",
            "y",
            "x1",
            "x2",
            "y1",
            "y2",
            "cx",
            "cy",
            "r",
            "rx",
            "ry",
            "d",
            "points",
            "dx",
            "dy",
            "transform",
            "fill",
            "fill-opacity",
            "fill-rule",
            "stroke",
            "stroke-width",
            "stroke-dasharray",
            "stroke-linecap",
            "stroke-linejoin",
            "stroke-opacity",
            "opacity",
            "font-size",
            "font-weight",
            "font-style",
            "text-anchor",
            "dominant-baseline",
            "textLength",
            "preserveAspectRatio");

    /** Numbers, colours, words and our own colours by name; nothing that names an address. */
    private static final Pattern VALUE = Pattern.compile("[-+\\w\\s.,#%()]*");

    private static final Pattern FUNCTION = Pattern.compile("([a-zA-Z]+)\\s*\\(");
    private static final Set<String> FUNCTIONS =
            Set.of("translate", "scale", "rotate", "matrix", "skewx", "skewy", "var", "rgb", "rgba", "hsl");

    private SafeSvg() {}

    /** @throws Problem where it is no drawing, or one without bounds */
    static String cleaned(String svg) {
        try {
            // The platform's own: what else reads XML here may bring another, which escapes otherwise.
            XMLInputFactory in = XMLInputFactory.newDefaultFactory();
            in.setProperty(XMLInputFactory.SUPPORT_DTD, false);
            in.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
            XMLStreamReader reader = in.createXMLStreamReader(new StringReader(svg));
            StringWriter text = new StringWriter();
            XMLStreamWriter writer = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(text);
            copy(reader, writer);
            writer.close();
            return text.toString();
        } catch (XMLStreamException e) {
            throw notADrawing("it cannot be read as XML");
        }
    }

    private static Problem notADrawing(String why) {
        return Problem.invalid("not-a-drawing", "This is no drawing (SVG) that can be shown: " + why + ".");
    }

    private static void copy(XMLStreamReader reader, XMLStreamWriter writer) throws XMLStreamException {
        int depth = 0;
        int left = 0;
        int elements = 0;
        while (reader.hasNext()) {
            switch (reader.next()) {
                case XMLStreamConstants.START_ELEMENT -> {
                    if (++elements > MOST_ELEMENTS || depth > DEEPEST) {
                        throw notADrawing("it has too many parts");
                    }
                    String name = reader.getLocalName();
                    if (depth == 0 && !name.equals("svg")) {
                        throw notADrawing("it does not begin as one");
                    }
                    depth++;
                    if (left > 0 || !ELEMENTS.contains(name)) {
                        left++;
                    } else {
                        writer.writeStartElement(name);
                        if (depth == 1) {
                            writer.writeAttribute("xmlns", "http://www.w3.org/2000/svg");
                        }
                        attributes(reader, writer);
                    }
                }
                case XMLStreamConstants.END_ELEMENT -> {
                    depth--;
                    if (left > 0) {
                        left--;
                    } else {
                        writer.writeEndElement();
                    }
                }
                case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA, XMLStreamConstants.SPACE -> {
                    if (left == 0 && depth > 0) {
                        writer.writeCharacters(reader.getText());
                    }
                }
                default -> {
                    // Comments, instructions and what is declared before it draw nothing.
                }
            }
        }
        if (elements == 0) {
            throw notADrawing("there is nothing in it");
        }
    }

    private static void attributes(XMLStreamReader reader, XMLStreamWriter writer) throws XMLStreamException {
        for (int i = 0; i < reader.getAttributeCount(); i++) {
            String name = reader.getAttributeLocalName(i);
            String value = reader.getAttributeValue(i);
            boolean plain = reader.getAttributePrefix(i) == null
                    || reader.getAttributePrefix(i).isEmpty();
            if (plain && ATTRIBUTES.contains(name) && isHarmless(value)) {
                writer.writeAttribute(name, value);
            }
        }
    }

    private static boolean isHarmless(String value) {
        return VALUE.matcher(value).matches()
                && FUNCTION.matcher(value)
                        .results()
                        .allMatch(f -> FUNCTIONS.contains(f.group(1).toLowerCase(Locale.ROOT)));
    }
}
