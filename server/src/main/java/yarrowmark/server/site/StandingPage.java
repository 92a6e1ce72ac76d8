package yarrowmark.server.site;

import static yarrowmark.server.writeup.EditionPage.escaped;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import yarrowmark.core.standing.Standing;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.standing.FrozenStandings;
import yarrowmark.server.standing.Standings;
import yarrowmark.server.writeup.LabLook;
import yarrowmark.server.writeup.PublishedEditions;

/** A saved standing for readers: a table, and an interval drawn in each row. */
@Component
class StandingPage {
    /** Columns of areas that a page has room for. */
    private static final int MOST_AREAS = 9;

    private static final int RAIL = 150;
    private static final int RAIL_HEIGHT = 16;

    private final FrozenStandings standings;
    private final PublishedEditions editions;

    StandingPage(FrozenStandings standings, PublishedEditions editions) {
        this.standings = standings;
        this.editions = editions;
    }

    /** @return null where there is none under this key */
    @Nullable
    String of(@Nullable String base, String key) {
        FrozenStandings.Frozen saved;
        try {
            saved = standings.read(key);
        } catch (Problem e) {
            return null;
        }
        LabLook.LookNow look = editions.look();
        String title = saved.title() == null ? "Standings" : saved.title();
        StringBuilder html = new StringBuilder("<h1>").append(escaped(title)).append("</h1>\n<p class=\"subtitle\">");
        html.append(escaped(saved.caption())).append("</p>\n");
        if (saved.words() != null) {
            for (String paragraph : saved.words().split("\\n{2,}")) {
                html.append("<p>")
                        .append(escaped(paragraph).replace("\n", "<br>"))
                        .append("</p>\n");
            }
        }
        html.append("<p class=\"by\">")
                .append(
                        saved.living()
                                ? "With everything that was measured until now, " + SitePage.day(saved.at()) + "."
                                : "As it was on " + SitePage.day(saved.at()) + ".")
                .append(" Where noise does not allow one place, the places that are possible are given.</p>\n");
        table(html, saved.standings());
        if (!saved.standings().leftOut().isEmpty()) {
            html.append("<p class=\"by\">Left out: ")
                    .append(escaped(leftOut(saved.standings().leftOut())))
                    .append(".</p>\n");
        }
        return SitePage.of(
                look,
                title + " · " + look.name(),
                SitePage.head(base, look.name(), "/standings/" + key, "article", title, saved.caption(), null),
                html.toString());
    }

    private static void table(StringBuilder html, Standings of) {
        MetricRow one = of.metric();
        List<Standings.StandingPart> parts =
                one != null ? List.of() : of.parts().stream().limit(MOST_AREAS).toList();
        List<Standings.Row> rows = of.rows().stream()
                .filter(r -> r.status() != Standing.Status.NOT_LINKED)
                .toList();
        boolean differences = rows.stream().anyMatch(r -> r.difference() != null);
        Span span = Span.of(rows);
        html.append("<div class=\"wide\" tabindex=\"0\" role=\"region\" aria-label=\"Standings\"><table>")
                .append("<thead><tr><th scope=\"col\">Place</th><th scope=\"col\">Model and configuration</th>");
        if (one != null) {
            html.append("<th scope=\"col\" class=\"n\">")
                    .append(escaped(one.name()))
                    .append("</th>");
        }
        html.append("<th scope=\"col\" class=\"n\">")
                .append(differences ? "Less that of " + (of.base() == null ? "the typical one" : "the base") : "Index")
                .append("</th><th scope=\"col\">95 % interval</th>");
        parts.forEach(p -> html.append("<th scope=\"col\" class=\"n\">")
                .append(escaped(p.name()))
                .append("</th>"));
        html.append("<th scope=\"col\" class=\"n\">")
                .append(one == null ? "Tests" : "Runs")
                .append("</th></tr></thead>\n<tbody>");
        for (Standings.Row row : rows) {
            html.append("<tr><td class=\"place\">").append(place(row)).append("</td><th scope=\"row\"><strong>");
            html.append(escaped(
                    row.configuration().maker() + " " + row.configuration().model()));
            html.append("</strong><br><span class=\"by\">")
                    .append(escaped(row.configuration().name()));
            html.append(row.status() == Standing.Status.PROVISIONAL ? ", provisional: under half of the weight" : "");
            html.append("</span></th>");
            if (one != null) {
                cell(html, row.value() == null ? "–" : Numbers.quantity(row.value(), one.unit()));
            }
            cell(
                    html,
                    of.base() != null && of.base().id() == row.configuration().id() && row.index() != null
                            ? "100"
                            : against(row, one));
            html.append("<td class=\"interval\">").append(span.drawn(row)).append("<span>");
            boolean base =
                    of.base() != null && of.base().id() == row.configuration().id() && row.difference() == null;
            html.append(base ? "the base" : escaped(interval(row, one))).append("</span></td>");
            for (int i = 0; i < parts.size(); i++) {
                int part = i;
                cell(
                        html,
                        row.parts().stream()
                                .filter(m -> m.part() == part)
                                .map(m -> Numbers.fixed(100 * Math.exp(m.merit()), 0))
                                .findFirst()
                                .orElse("–"));
            }
            cell(
                    html,
                    one == null
                            ? row.tests() + "/" + of.metrics().size()
                            : row.runs() == null ? "–" : row.runs().toString());
            html.append("</tr>\n");
        }
        html.append("</tbody></table></div>\n");
    }

    private static void cell(StringBuilder html, String words) {
        html.append("<td class=\"n\">").append(escaped(words)).append("</td>");
    }

    /** The order, and beside it what the place could be where noise leaves more than one; as the program shows it. */
    private static String place(Standings.Row row) {
        if (row.placeBest() == null || row.placeWorst() == null) {
            return "–";
        }
        if (Objects.equals(row.placeBest(), row.placeWorst())) {
            return row.placeBest().toString();
        }
        String range = row.placeBest() + " to " + row.placeWorst();
        return row.order() == null ? range : row.order() + " <span class=\"by\">" + range + "</span>";
    }

    private static String against(Standings.Row row, @Nullable MetricRow one) {
        if (row.difference() != null && one != null) {
            return signed(row.difference().value(), one.unit());
        }
        return row.index() == null ? "–" : index(row.index(), row.low(), row.high());
    }

    private static String interval(Standings.Row row, @Nullable MetricRow one) {
        if (Boolean.TRUE.equals(row.atLeast())) {
            return "at least";
        }
        Standings.ValueDifference d = row.difference();
        if (d != null && one != null) {
            return d.low() == null || d.high() == null
                    ? "–"
                    : signed(d.low(), one.unit()) + " to " + signed(d.high(), one.unit());
        }
        return row.low() == null || row.high() == null
                ? "–"
                : index(row.low(), row.low(), row.high()) + " to " + index(row.high(), row.low(), row.high());
    }

    /** With a decimal where the interval is narrower than the whole numbers beside it. */
    private static String index(double value, @Nullable Double low, @Nullable Double high) {
        boolean fine = low != null && high != null && high - low < 2;
        return value > 0 && value < 0.1 ? Numbers.plain(value) : Numbers.fixed(value, fine ? 1 : 0);
    }

    private static String signed(double value, String unit) {
        return (value > 0 ? "+" : "") + Numbers.quantity(value, unit.equals("Cel") ? "°C" : unit);
    }

    /** Each reason once; many tests of one suite are counted rather than named. */
    private static String leftOut(List<Standings.LeftOut> all) {
        Map<String, Map<String, List<String>>> byReason = new LinkedHashMap<>();
        all.forEach(l -> byReason.computeIfAbsent(l.reason(), r -> new LinkedHashMap<>())
                .computeIfAbsent(l.suite(), s -> new ArrayList<>())
                .add(l.test()));
        return byReason.entrySet().stream()
                .map(reason -> reason.getValue().entrySet().stream()
                                .map(suite -> suite.getValue().size() > 3
                                        ? suite.getValue().size() + " tests of " + suite.getKey()
                                        : String.join(", ", suite.getValue()))
                                .collect(Collectors.joining(", "))
                        + " (" + reason.getKey() + ")")
                .collect(Collectors.joining("; "));
    }

    /** The merits that rails of a page reach over. */
    private record Span(double low, double high) {
        static Span of(List<Standings.Row> rows) {
            double low = Double.POSITIVE_INFINITY;
            double high = Double.NEGATIVE_INFINITY;
            for (Standings.Row row : rows) {
                if (row.merit() != null) {
                    low = Math.min(low, row.low() == null ? row.merit() : Math.log(row.low() / 100));
                    high = Math.max(high, row.high() == null ? row.merit() : Math.log(row.high() / 100));
                }
            }
            return new Span(low, high);
        }

        /** The table's numbers say the same, so that nobody has to see it. */
        String drawn(Standings.Row row) {
            if (row.merit() == null || row.difference() != null || !(high > low)) {
                return "";
            }
            double from = x(row.low() == null ? row.merit() : Math.log(row.low() / 100));
            double to = x(row.high() == null ? row.merit() : Math.log(row.high() / 100));
            return String.format(
                    Locale.ROOT,
                    "<svg class=\"rail\" aria-hidden=\"true\" viewBox=\"0 0 %d %d\" width=\"%d\" height=\"%d\"><line x1=\"0\" x2=\"%d\" y1=\"8\" y2=\"8\" stroke=\"var(--hair)\"/><line x1=\"%.1f\" x2=\"%.1f\" y1=\"8\" y2=\"8\" stroke=\"var(--accent)\" stroke-width=\"3\"/><circle cx=\"%.1f\" cy=\"8\" r=\"4.5\" fill=\"var(--accent)\"/></svg>",
                    RAIL,
                    RAIL_HEIGHT,
                    RAIL,
                    RAIL_HEIGHT,
                    RAIL,
                    from,
                    to,
                    x(row.merit()));
        }

        private double x(double merit) {
            double margin = 6;
            return margin + (RAIL - 2 * margin) * (merit - low) / (high - low);
        }
    }
}
