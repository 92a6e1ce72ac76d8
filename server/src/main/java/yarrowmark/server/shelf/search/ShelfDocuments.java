package yarrowmark.server.shelf.search;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.apache.lucene.document.Document;
import org.apache.lucene.document.DoubleDocValuesField;
import org.apache.lucene.document.DoublePoint;
import org.apache.lucene.document.Field;
import org.apache.lucene.document.LongPoint;
import org.apache.lucene.document.NumericDocValuesField;
import org.apache.lucene.document.SortedDocValuesField;
import org.apache.lucene.document.StringField;
import org.apache.lucene.util.BytesRef;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactText;
import yarrowmark.core.setup.FactVocabulary;

/** What the index keeps of a model and of each of its configurations, and under which words they are found. */
final class ShelfDocuments {
    private static final Logger LOG = LoggerFactory.getLogger(ShelfDocuments.class);

    private ShelfDocuments() {}

    static List<Document> documents(ShelfIndexSource.ModelWords m) {
        List<Document> documents = new ArrayList<>();
        Document model = document("model", m.id(), m);
        Set<String> words = new LinkedHashSet<>();
        name(words, m.maker());
        name(words, m.name());
        words(words, m.deviceClass().name().toLowerCase(Locale.ROOT));
        m.otherWords().forEach(u -> words(words, u));
        Set<String> conditions = new LinkedHashSet<>();
        for (ShelfIndexSource.ConfigurationWords c : m.configurations()) {
            Document configuration = document("configuration", c.id(), m);
            Set<String> own = new LinkedHashSet<>();
            name(own, m.maker());
            name(own, m.name());
            name(own, c.name());
            name(words, c.name());
            c.facts().forEach((key, value) -> {
                FactKey known = FactVocabulary.entry(key);
                words(own, FactText.of(known, value));
                condition(conditions, model, known, value);
            });
            words.addAll(own);
            documents.add(finished(configuration, ShelfIndex.CONFIGURATION_WORD, own));
        }
        model.add(new SortedDocValuesField(
                ShelfIndex.SORTED + ShelfIndex.Order.CLASS,
                new BytesRef(m.deviceClass().name())));
        model.add(new DoubleDocValuesField(
                ShelfIndex.SORTED + ShelfIndex.Order.CONFIGURATIONS,
                m.configurations().size()));
        if (m.released() != null) {
            model.add(new DoubleDocValuesField(
                    ShelfIndex.SORTED + ShelfIndex.Order.RELEASED, m.released().toEpochDay()));
            model.add(new LongPoint("released", m.released().toEpochDay()));
        }
        if (m.price() != null) {
            model.add(new DoubleDocValuesField(ShelfIndex.SORTED + ShelfIndex.Order.PRICE, m.price()));
            model.add(new DoublePoint("price", m.price()));
        }
        documents.add(finished(model, ShelfIndex.MODEL_WORD, words));
        return documents;
    }

    private static Document document(String kind, long id, ShelfIndexSource.ModelWords m) {
        Document d = new Document();
        d.add(new StringField("kind", kind, Field.Store.NO));
        d.add(new StringField("model", Long.toString(m.id()), Field.Store.NO));
        d.add(new StringField("class", m.deviceClass().name(), Field.Store.NO));
        d.add(new StringField("maker", m.maker().toLowerCase(Locale.ROOT), Field.Store.NO));
        d.add(new StringField("retired", Boolean.toString(m.retired()), Field.Store.NO));
        d.add(new NumericDocValuesField("id", id));
        d.add(new SortedDocValuesField("order", new BytesRef((m.maker() + " " + m.name()).toLowerCase(Locale.ROOT))));
        return d;
    }

    static Document finished(Document d, String field, Set<String> words) {
        words.forEach(w -> d.add(new StringField(field, w, Field.Store.NO)));
        return d;
    }

    private static void condition(Set<String> seen, Document model, FactKey key, String value) {
        if (seen.add(key.key() + "=" + value)) {
            model.add(new StringField("fact", key.key(), Field.Store.NO));
            model.add(new StringField("fact:" + key.key(), value.toLowerCase(Locale.ROOT), Field.Store.NO));
            if (key.isQuantity()) {
                try {
                    model.add(new DoublePoint("number:" + key.key(), Double.parseDouble(value)));
                } catch (NumberFormatException e) {
                    // Kept as text before the key became a quantity; it is found by its words.
                    LOG.debug("{} is no number: {}", key.key(), value);
                }
            }
        }
    }

    /** Parts of a name are found wherever they begin. */
    static void name(Set<String> into, String name) {
        words(into, name);
        for (String word : parts(name)) {
            for (int i = 1; i < word.length() - 1; i++) {
                into.add(word.substring(i));
            }
        }
    }

    /** "3.4 GHz" is found by 3.4, by 4, by ghz and by 3.4ghz. */
    static void words(Set<String> into, String text) {
        List<String> parts = parts(text);
        into.addAll(parts);
        if (parts.size() == 2) {
            into.add(parts.get(0) + parts.get(1));
        }
        for (String part : parts) {
            for (String piece : part.split("[^\\p{L}\\p{N}]+")) {
                if (!piece.isEmpty()) {
                    into.add(piece);
                }
            }
        }
    }

    static List<String> parts(String text) {
        List<String> parts = new ArrayList<>();
        for (String part : text.toLowerCase(Locale.ROOT).split("\\s+")) {
            if (!part.isEmpty()) {
                parts.add(part.length() <= 100 ? part : part.substring(0, 100));
            }
        }
        return parts;
    }
}
