package yarrowmark.server.demo;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import yarrowmark.server.access.DemoSignIn;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.files.Files;
import yarrowmark.server.writeup.Editions;
import yarrowmark.server.writeup.PieceKind;
import yarrowmark.server.writeup.WriteUps;

/**
 * What the demo's lab has published: two reviews, one of them in a second edition, charts of a class, and a trend. In their
 * files stand names where the records have numbers; what each showed was drawn by the front end and is kept beside it.
 */
@Component
class DemoWriteUps {
    private final WriteUps writeUps;
    private final Editions editions;
    private final Files files;
    private final Catalog catalog;
    private final EntityManager entities;
    private final JsonMapper json;

    DemoWriteUps(
            WriteUps writeUps,
            Editions editions,
            Files files,
            Catalog catalog,
            EntityManager entities,
            JsonMapper json) {
        this.writeUps = writeUps;
        this.editions = editions;
        this.files = files;
        this.catalog = catalog;
        this.entities = entities;
        this.json = json;
    }

    void add() {
        Map<String, Object> named = new HashMap<>();
        Map<String, Long> models = new HashMap<>();
        entities.createQuery(
                        "select c.id, k.name, m.name, c.name, m.id from Configuration c join c.unit u join u.model m join m.maker k order by c.id desc",
                        Object[].class)
                .getResultList()
                .forEach(c -> {
                    named.put("@c:" + c[1] + " " + c[2] + "#" + c[3], c[0]);
                    named.put("@model:" + c[1] + " " + c[2], c[4]);
                    models.put(c[1] + " " + c[2], (Long) c[4]);
                });
        for (MetricRow m : catalog.metricsInUse()) {
            if (m.main()) {
                named.put("@m:" + m.suite() + "#" + m.test(), m.id());
            }
        }
        named.put("@p:marsh", files.keepPicture(DemoPhotos.marsh()));
        named.put("@p:rain", files.keepPicture(DemoPhotos.rain()));
        Map<String, WriteUps.WriteUpPage> pages = new LinkedHashMap<>();
        for (String name : List.of("tablets", "drift", "laptops", "kernels")) {
            pages.put(name, make("write-up-" + name + ".json", named, models));
        }
        // The one with a second edition comes last, and leads the front page.
        for (String name : List.of("tablets", "laptops", "kernels", "drift")) {
            publish(name, require(pages, name));
        }
        publishAgain(require(pages, "drift"));
    }

    private WriteUps.WriteUpPage make(String name, Map<String, Object> named, Map<String, Long> models) {
        JsonNode file = read(name);
        List<WriteUps.NewPiece> pieces = new ArrayList<>();
        file.path("pieces")
                .forEach(p -> pieces.add(new WriteUps.NewPiece(
                        PieceKind.valueOf(p.path("kind").asString()), resolved(p.path("body"), named))));
        Set<Long> about = new HashSet<>();
        file.path("models").forEach(m -> about.add(require(models, m.asString())));
        String title = file.path("title").asString();
        WriteUps.WriteUpPage made =
                writeUps.make(title, about, pieces, file.path("kind").asString(null), DemoSignIn.NAME);
        return writeUps.change(
                made.writeUp().id(), title, file.path("subtitle").asString(), about, false, DemoSignIn.NAME);
    }

    /** One whose drawings are not there yet stays a draft. */
    private void publish(String name, WriteUps.WriteUpPage page) {
        if (DemoWriteUps.class.getResource(shownFile(name)) == null) {
            return;
        }
        editions.publish(page.writeUp().id(), shown(name, page), null, DemoSignIn.NAME);
    }

    private static String shownFile(String name) {
        return "write-up-" + name + "-shown.json";
    }

    private Map<Long, JsonNode> shown(String name, WriteUps.WriteUpPage page) {
        JsonNode file = read(shownFile(name));
        Map<Long, JsonNode> byPiece = new HashMap<>();
        for (int i = 0; i < file.path("pieces").size(); i++) {
            JsonNode of = file.path("pieces").get(i);
            if (!of.isNull()) {
                byPiece.put(page.pieces().get(i).id(), of);
            }
        }
        if (file.has("standing")) {
            byPiece.put(Editions.STANDING, file.path("standing"));
        }
        return byPiece;
    }

    private void publishAgain(WriteUps.WriteUpPage page) {
        long id = page.writeUp().id();
        WriteUps.PieceRow text = page.pieces().get(3);
        ObjectNode longer = ((ObjectNode) text.body()).deepCopy();
        longer.put("text", longer.path("text").asString() + " Whoever owns a Folio 14 has no reason to change.");
        writeUps.change(id, text.id(), longer, text.revision(), DemoSignIn.NAME);
        editions.publish(
                id,
                shown("drift", page),
                "Readers asked about the Folio 14: a sentence on it. No number changed.",
                DemoSignIn.NAME);
    }

    private JsonNode resolved(JsonNode node, Map<String, Object> named) {
        if (node.isString() && named.containsKey(node.asString())) {
            return json.valueToTree(named.get(node.asString()));
        }
        if (node.isString() && node.asString().matches("@(c|m|p|model):.*")) {
            throw new IllegalStateException("the demo has no " + node.asString());
        }
        if (node instanceof ObjectNode object) {
            ObjectNode copy = json.createObjectNode();
            object.properties().forEach(p -> copy.set(p.getKey(), resolved(p.getValue(), named)));
            return copy;
        }
        if (node instanceof ArrayNode array) {
            ArrayNode copy = json.createArrayNode();
            array.forEach(n -> copy.add(resolved(n, named)));
            return copy;
        }
        return node;
    }

    private JsonNode read(String name) {
        try (InputStream in = require(DemoWriteUps.class.getResourceAsStream(name))) {
            return json.readTree(in);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
