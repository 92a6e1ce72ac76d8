package yarrowmark.server.writeup;

import java.util.List;
import java.util.Map;
import org.commonmark.node.AbstractVisitor;
import org.commonmark.node.Document;
import org.commonmark.node.HtmlBlock;
import org.commonmark.node.HtmlInline;
import org.commonmark.node.Image;
import org.commonmark.node.Link;
import org.commonmark.node.Node;
import org.commonmark.node.Paragraph;
import org.commonmark.node.Text;
import org.commonmark.parser.Parser;
import org.commonmark.renderer.NodeRenderer;
import org.commonmark.renderer.html.DefaultUrlSanitizer;
import org.commonmark.renderer.html.HtmlNodeRendererContext;
import org.commonmark.renderer.html.HtmlRenderer;
import org.commonmark.renderer.html.HtmlWriter;
import org.commonmark.renderer.html.UrlSanitizer;
import org.commonmark.renderer.markdown.MarkdownRenderer;
import org.commonmark.renderer.text.LineBreakRendering;
import org.commonmark.renderer.text.TextContentNodeRendererContext;
import org.commonmark.renderer.text.TextContentRenderer;

/**
 * Text with marks (CommonMark) as HTML. A link to {@code number:ID} is a number of the write-up and leads to what is said of
 * it; HTML in the text is shown as it is written; an address that is no page, mail or place in this page leads nowhere.
 */
final class MarkedText {
    /** How a number is named in a text. */
    static final String NUMBER = "number:";

    private static final Parser PARSER = Parser.builder().build();
    private static final UrlSanitizer SAFE = new DefaultUrlSanitizer(List.of("http", "https", "mailto"));
    private static final MarkdownRenderer MARKDOWN = MarkdownRenderer.builder().build();

    private MarkedText() {}

    /** @param anchors where what is said of each number stands, by its id. Others are words like any other. */
    static String html(String text, Map<String, String> anchors) {
        return renderer(anchors).render(PARSER.parse(text));
    }

    /** The same for a single line: without its paragraph. */
    static String line(String text, Map<String, String> anchors) {
        Node document = PARSER.parse(text);
        document.accept(new AbstractVisitor() {
            @Override
            public void visit(Paragraph paragraph) {
                while (paragraph.getFirstChild() != null) {
                    paragraph.insertBefore(paragraph.getFirstChild());
                }
                paragraph.unlink();
            }
        });
        return renderer(anchors).render(document).strip();
    }

    /** As Markdown for programs that show HTML and follow any link: of both only what a published page has. */
    static String markdown(String text) {
        Node document = PARSER.parse(text);
        document.accept(new AbstractVisitor() {
            @Override
            public void visit(HtmlBlock html) {
                Paragraph shown = new Paragraph();
                shown.appendChild(new Text(html.getLiteral()));
                html.insertBefore(shown);
                html.unlink();
            }

            @Override
            public void visit(HtmlInline html) {
                html.insertBefore(new Text(html.getLiteral()));
                html.unlink();
            }

            @Override
            public void visit(Link link) {
                visitChildren(link);
                unlessSafe(link, link.getDestination());
            }

            @Override
            public void visit(Image image) {
                visitChildren(image);
                unlessSafe(image, image.getDestination());
            }
        });
        return MARKDOWN.render(document).strip();
    }

    /** As words alone, in one line. */
    static String plain(String text) {
        return TextContentRenderer.builder()
                .lineBreakRendering(LineBreakRendering.STRIP)
                .nodeRendererFactory(PlainLinks::new)
                .build()
                .render(PARSER.parse(text))
                .replaceAll("\\s+", " ")
                .strip();
    }

    /** A link or picture is its words: an address between them would be read out. */
    private record PlainLinks(TextContentNodeRendererContext context) implements NodeRenderer {
        @Override
        public java.util.Set<Class<? extends Node>> getNodeTypes() {
            return java.util.Set.of(Link.class, Image.class);
        }

        @Override
        public void render(Node node) {
            for (Node child = node.getFirstChild(); child != null; child = child.getNext()) {
                context.render(child);
            }
        }
    }

    /** Words without marks, so that Markdown shows them as they are. */
    static String plainMarkdown(String words) {
        Paragraph paragraph = new Paragraph();
        paragraph.appendChild(new Text(words));
        Document document = new Document();
        document.appendChild(paragraph);
        return MARKDOWN.render(document).strip();
    }

    /** What leads nowhere that a page may lead stays as its words; numbers of the write-up do, too. */
    private static void unlessSafe(Node node, String address) {
        if (SAFE.sanitizeLinkUrl(address).isEmpty()) {
            while (node.getFirstChild() != null) {
                node.insertBefore(node.getFirstChild());
            }
            node.unlink();
        }
    }

    private static HtmlRenderer renderer(Map<String, String> anchors) {
        return HtmlRenderer.builder()
                .escapeHtml(true)
                .sanitizeUrls(true)
                .urlSanitizer(SAFE)
                .softbreak("\n")
                .nodeRendererFactory(context -> new Links(context, anchors))
                .build();
    }

    private static final class Links implements NodeRenderer {
        private final HtmlNodeRendererContext context;
        private final HtmlWriter html;
        private final Map<String, String> anchors;

        Links(HtmlNodeRendererContext context, Map<String, String> anchors) {
            this.context = context;
            this.html = context.getWriter();
            this.anchors = anchors;
        }

        @Override
        public java.util.Set<Class<? extends Node>> getNodeTypes() {
            return java.util.Set.of(Link.class, org.commonmark.node.Image.class);
        }

        @Override
        public void render(Node node) {
            if (node instanceof Link link && link.getDestination().startsWith(NUMBER)) {
                String anchor = anchors.get(link.getDestination().substring(NUMBER.length()));
                if (anchor == null) {
                    children(node);
                } else {
                    html.tag("a", Map.of("class", "number", "href", "#" + anchor));
                    children(node);
                    html.tag("/a");
                }
            } else if (node instanceof Link link) {
                String address = context.urlSanitizer().sanitizeLinkUrl(link.getDestination());
                html.tag("a", Map.of("href", context.encodeUrl(address), "rel", "noopener noreferrer nofollow"));
                children(node);
                html.tag("/a");
            } else {
                // A picture from elsewhere would be loaded from there. Its words stay.
                children(node);
            }
        }

        private void children(Node node) {
            for (Node child = node.getFirstChild(); child != null; child = child.getNext()) {
                context.render(child);
            }
        }
    }
}
