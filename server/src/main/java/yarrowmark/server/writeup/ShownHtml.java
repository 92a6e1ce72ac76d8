package yarrowmark.server.writeup;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/** What pieces show of the records, as HTML of a published page: drawings, tables, and what tests do. */
final class ShownHtml {
    private final StringBuilder html;
    private final @Nullable Map<Long, Frozen.TestSaid> tests;
    /** Tests that were explained already, by name. */
    private final Set<String> explained = new HashSet<>();

    private int figures;

    /** @param html that is written to. @param tests what they do, by metric; null where that was not kept */
    ShownHtml(StringBuilder html, @Nullable Map<Long, Frozen.TestSaid> tests) {
        this.html = html;
        this.tests = tests;
    }

    void figure(Frozen.@Nullable Shown shown, JsonNode body) {
        if (shown == null || shown.svg() == null) {
            return;
        }
        figures++;
        String alt = shown.alt() == null ? "" : shown.alt();
        html.append("<figure id=\"figure-")
                .append(figures)
                .append("\">\n<div class=\"frame\" tabindex=\"0\" role=\"group\" aria-label=\"Figure ")
                .append(figures)
                .append("\"><div class=\"drawing\" role=\"img\" aria-label=\"")
                .append(EditionPage.escaped(alt))
                .append("\">")
                .append(shown.narrow() == null ? shown.svg() : bothForms(shown.svg(), shown.narrow()))
                .append("</div></div>\n<figcaption>")
                .append(EditionPage.escaped(caption(shown, body)))
                .append("</figcaption>\n");
        tests(shown);
        if (shown.rows() != null && !shown.rows().isEmpty()) {
            html.append("<details><summary>The numbers behind it</summary>");
            rows(shown, null);
            html.append("</details>\n");
        }
        html.append("</figure>\n");
    }

    /** What the tests do that stand here for the first time: one in its sentence, more of them on demand. */
    private void tests(Frozen.Shown shown) {
        if (shown.metrics() == null || tests == null) {
            return;
        }
        List<Frozen.TestSaid> first = shown.metrics().stream()
                .map(tests::get)
                .filter(t -> t != null && explained.add(t.name()))
                .toList();
        if (first.size() == 1) {
            html.append("<p class=\"tests\">");
            test(first.get(0));
            html.append("</p>\n");
        } else if (first.size() > 1) {
            html.append("<details><summary>What these tests do</summary><ul>");
            first.forEach(t -> {
                html.append("<li>");
                test(t);
                html.append("</li>");
            });
            html.append("</ul></details>\n");
        }
    }

    private void test(Frozen.TestSaid test) {
        html.append("<strong>")
                .append(EditionPage.escaped(test.name()))
                .append(":</strong> ")
                .append(EditionPage.escaped(test.summary()));
    }

    /** The page's style shows the one that fits. */
    private static String bothForms(String page, String phone) {
        return "<div class=\"on-page\">" + page + "</div><div class=\"on-phone\">" + phone + "</div>";
    }

    private static String caption(Frozen.Shown shown, JsonNode body) {
        String own = body.path("caption").asString("");
        return own.isBlank() ? (shown.caption() == null ? "" : shown.caption()) : own;
    }

    void table(Frozen.@Nullable Shown shown, JsonNode body) {
        if (shown != null && shown.rows() != null) {
            rows(shown, caption(shown, body));
            tests(shown);
        }
    }

    private void rows(Frozen.Shown shown, @Nullable String caption) {
        html.append("<div class=\"wide\" tabindex=\"0\" role=\"region\" aria-label=\"")
                .append(EditionPage.escaped(
                        caption == null || caption.isEmpty() ? "The numbers behind the figure" : caption))
                .append("\"><table>");
        if (caption != null && !caption.isEmpty()) {
            html.append("<caption>").append(EditionPage.escaped(caption)).append("</caption>");
        }
        if (shown.columns() != null && shown.columns().stream().anyMatch(c -> !c.isEmpty())) {
            html.append("<thead><tr>");
            shown.columns()
                    .forEach(c -> html.append(
                            c.isEmpty() ? "<td></td>" : "<th scope=\"col\">" + EditionPage.escaped(c) + "</th>"));
            html.append("</tr></thead>");
        }
        html.append("<tbody>");
        for (List<String> row : shown.rows() == null ? List.<List<String>>of() : shown.rows()) {
            html.append("<tr>");
            for (int i = 0; i < row.size(); i++) {
                html.append(i == 0 ? "<th scope=\"row\">" : "<td>")
                        .append(EditionPage.escaped(row.get(i)))
                        .append(i == 0 ? "</th>" : "</td>");
            }
            html.append("</tr>");
        }
        html.append("</tbody></table></div>\n");
    }
}
