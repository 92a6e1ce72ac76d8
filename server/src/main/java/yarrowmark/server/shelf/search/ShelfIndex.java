package yarrowmark.server.shelf.search;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentSkipListMap;
import org.apache.lucene.document.DoublePoint;
import org.apache.lucene.document.LongPoint;
import org.apache.lucene.index.IndexWriter;
import org.apache.lucene.index.IndexWriterConfig;
import org.apache.lucene.index.MultiDocValues;
import org.apache.lucene.index.NumericDocValues;
import org.apache.lucene.index.Term;
import org.apache.lucene.search.BooleanClause.Occur;
import org.apache.lucene.search.BooleanQuery;
import org.apache.lucene.search.ConstantScoreQuery;
import org.apache.lucene.search.IndexSearcher;
import org.apache.lucene.search.PrefixQuery;
import org.apache.lucene.search.Query;
import org.apache.lucene.search.ScoreDoc;
import org.apache.lucene.search.SearcherManager;
import org.apache.lucene.search.Sort;
import org.apache.lucene.search.SortField;
import org.apache.lucene.search.TermQuery;
import org.apache.lucene.search.TopFieldCollectorManager;
import org.apache.lucene.search.TopFieldDocs;
import org.apache.lucene.store.ByteBuffersDirectory;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.StartupTask;
import yarrowmark.server.platform.change.Mirror;
import yarrowmark.server.platform.change.RecordsChanged;
import yarrowmark.server.platform.health.HealthWarnings;
import yarrowmark.server.shelf.model.DeviceClass;
import yarrowmark.server.shelf.model.EditableField;
import yarrowmark.server.shelf.model.ModelTouched;

/**
 * Finds models and configurations by any words of theirs: names, makers, labels, serials and every fact. Kept in memory
 * and made anew from the database at each start; what is shown is always read from the database, never from here.
 *
 * <p>A full-text index of the database itself was tried and is ten to a hundred times slower than a plain query for words
 * that thousands of rows share, and such words (16, GiB) are what people type.
 */
@Component
public class ShelfIndex implements StartupTask, Mirror, HealthWarnings {
    private static final Logger LOG = LoggerFactory.getLogger(ShelfIndex.class);
    /** Words of models and of configurations lie apart: what is looked for is always one of the two. */
    static final String MODEL_WORD = "w";

    static final String CONFIGURATION_WORD = "c";
    static final String SORTED = "sorted:";

    /** By which column models are listed. */
    public enum Order {
        NAME,
        CLASS,
        RELEASED,
        PRICE,
        CONFIGURATIONS
    }

    /** @param falling from the largest, the newest or the end of the alphabet */
    public record InOrder(Order by, boolean falling) {
        public static final InOrder SHELF = new InOrder(Order.NAME, false);

        /** What is not known comes last, whichever way. */
        private Sort sort() {
            SortField name = new SortField("order", SortField.Type.STRING, by == Order.NAME && falling);
            SortField id = new SortField("id", SortField.Type.LONG);
            if (by == Order.NAME) {
                return new Sort(name, id);
            }
            SortField first = by == Order.CLASS
                    ? new SortField(SORTED + by, SortField.Type.STRING, falling)
                    : new SortField(SORTED + by, SortField.Type.DOUBLE, falling);
            if (by != Order.CLASS) {
                first.setMissingValue(falling ? Double.NEGATIVE_INFINITY : Double.POSITIVE_INFINITY);
            }
            return new Sort(first, name, id);
        }
    }

    /** How a fact that is asked for must relate to the value. */
    public enum Relation {
        KNOWN,
        IS,
        AT_LEAST,
        AT_MOST
    }

    /** @param value in the base unit; null where it need only be known */
    public record FactCondition(String key, Relation relation, @Nullable String value) {
        /** @param text as a person writes the value; blank where the fact need only be known */
        public static FactCondition read(String key, Relation relation, String text) {
            FactCondition read = new FactCondition(
                    key, relation, text.isBlank() ? null : EditableField.understood(FactVocabulary.entry(key), text));
            if (read.value() != null
                    && relation != Relation.KNOWN
                    && relation != Relation.IS
                    && !FactVocabulary.entry(key).isQuantity()) {
                throw Problem.invalid(
                        "not-a-quantity",
                        FactVocabulary.entry(key).label() + " is no quantity, so nothing is at least or at most it.");
            }
            return read;
        }
    }

    /**
     * @param words        any part of a name, or beginnings of any other words; all must be there
     * @param classes      none stands for all
     * @param releasedFrom first day, or null
     * @param dearest      highest price in whatever currency, or null
     * @param retired      whether those that were retired are asked for, and no others
     */
    public record Question(
            String words,
            Collection<DeviceClass> classes,
            @Nullable String maker,
            @Nullable LocalDate releasedFrom,
            @Nullable Double dearest,
            boolean retired,
            @Nullable FactCondition fact) {
        public static Question words(String words) {
            return new Question(words, List.of(), null, null, null, false, null);
        }
    }

    public record Found(List<Long> ids, long total) {}

    private final ShelfIndexSource source;
    private static final int LONGEST_NOTE = 200;

    /** Why models are not in the index, by id. */
    private final Map<Long, String> leftOut = new ConcurrentSkipListMap<>();

    private final IndexWriter writer;
    private final SearcherManager searchers;
    /** Models that changed since they were read; the next search reads them anew. */
    private final Set<Long> stale = new LinkedHashSet<>();

    ShelfIndex(ShelfIndexSource source) throws IOException {
        this.source = source;
        this.writer = new IndexWriter(new ByteBuffersDirectory(), new IndexWriterConfig());
        this.searchers = new SearcherManager(writer, null);
    }

    @Override
    public int getPhase() {
        return 40;
    }

    @Override
    public void start() {
        rebuild();
    }

    /** Makes the whole index anew. */
    public synchronized void rebuild() {
        long began = System.nanoTime();
        try {
            synchronized (stale) {
                stale.clear();
            }
            writer.deleteAll();
            leftOut.clear();
            source.models(null, this::put);
            writer.forceMerge(1);
            searchers.maybeRefreshBlocking();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        LOG.info("The shelf can be searched after {} ms", (System.nanoTime() - began) / 1_000_000);
    }

    @Override
    public void note(RecordsChanged change) {
        if (change instanceof ModelTouched touched) {
            synchronized (stale) {
                stale.add(touched.modelId());
            }
        }
    }

    /** Reads what changed since the last search. One at a time, so that no model is in the index twice. */
    private synchronized void refresh() throws IOException {
        List<Long> changed;
        synchronized (stale) {
            changed = List.copyOf(stale);
            stale.clear();
        }
        if (changed.isEmpty()) {
            return;
        }
        try {
            List<ShelfIndexSource.ModelWords> read = new ArrayList<>();
            source.models(changed, read::add);
            for (long id : changed) {
                leftOut.remove(id);
                writer.deleteDocuments(new Term("model", Long.toString(id)));
            }
            read.forEach(this::put);
        } catch (RuntimeException e) {
            // The records are out of reach: whoever searches next tries again.
            synchronized (stale) {
                stale.addAll(changed);
            }
            throw e;
        }
        searchers.maybeRefreshBlocking();
    }

    /** All documents of a model at once, or none. */
    private void put(ShelfIndexSource.ModelWords m) {
        try {
            leftOut.remove(m.id());
            writer.updateDocuments(new Term("model", Long.toString(m.id())), ShelfDocuments.documents(m));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (RuntimeException e) {
            // A record that makes no sense is left out and stops neither a commit nor a start.
            String why = shortened(m.maker() + " " + m.name()) + " (model " + m.id() + ") cannot be searched: "
                    + shortened(Problem.words(e));
            LOG.error(why);
            leftOut.put(m.id(), why);
        }
    }

    private static String shortened(String text) {
        return text.length() <= LONGEST_NOTE ? text : text.substring(0, LONGEST_NOTE) + "…";
    }

    @Override
    public List<String> noticed() {
        return List.copyOf(leftOut.values());
    }

    public Found models(Question q, InOrder order, int page, int size) {
        BooleanQuery.Builder query = new BooleanQuery.Builder();
        query.add(term("kind", "model"), Occur.FILTER)
                .add(term("retired", Boolean.toString(q.retired())), Occur.FILTER);
        wordsOf(query, MODEL_WORD, q.words());
        if (!q.classes().isEmpty()) {
            BooleanQuery.Builder any = new BooleanQuery.Builder();
            q.classes().forEach(c -> any.add(term("class", c.name()), Occur.SHOULD));
            query.add(any.build(), Occur.FILTER);
        }
        if (q.maker() != null) {
            query.add(term("maker", q.maker().toLowerCase(Locale.ROOT)), Occur.FILTER);
        }
        if (q.releasedFrom() != null) {
            query.add(LongPoint.newRangeQuery("released", q.releasedFrom().toEpochDay(), Long.MAX_VALUE), Occur.FILTER);
        }
        if (q.dearest() != null) {
            query.add(DoublePoint.newRangeQuery("price", 0, q.dearest()), Occur.FILTER);
        }
        if (q.fact() != null) {
            query.add(fact(q.fact()), Occur.FILTER);
        }
        return find(query.build(), order, page, size);
    }

    static Query fact(FactCondition f) {
        if (f.relation() == Relation.KNOWN || f.value() == null) {
            return term("fact", f.key());
        }
        if (f.relation() == Relation.IS) {
            return term("fact:" + f.key(), f.value().toLowerCase(Locale.ROOT));
        }
        double value = Double.parseDouble(f.value());
        return f.relation() == Relation.AT_LEAST
                ? DoublePoint.newRangeQuery("number:" + f.key(), value, Double.POSITIVE_INFINITY)
                : DoublePoint.newRangeQuery("number:" + f.key(), Double.NEGATIVE_INFINITY, value);
    }

    public List<Long> configurations(String words, int most) {
        BooleanQuery.Builder query = new BooleanQuery.Builder()
                .add(term("kind", "configuration"), Occur.FILTER)
                .add(term("retired", "false"), Occur.FILTER);
        wordsOf(query, CONFIGURATION_WORD, words);
        return find(query.build(), InOrder.SHELF, 0, most).ids();
    }

    /** Each word must begin some word of the record. They are text, never a pattern. */
    private static void wordsOf(BooleanQuery.Builder query, String field, String words) {
        ShelfDocuments.parts(words).stream()
                .limit(20)
                .forEach(w -> query.add(new PrefixQuery(new Term(field, w)), Occur.FILTER));
    }

    private static Query term(String field, String value) {
        return new TermQuery(new Term(field, value));
    }

    private Found find(Query query, InOrder order, int page, int size) {
        try {
            refresh();
            IndexSearcher searcher = searchers.acquire();
            try {
                // One pass gives the page and how many there are in all.
                TopFieldDocs found = searcher.search(
                        new ConstantScoreQuery(query),
                        new TopFieldCollectorManager(order.sort(), (page + 1) * size, null, Integer.MAX_VALUE));
                ScoreDoc[] hits = found.scoreDocs;
                List<Long> ids = new ArrayList<>();
                for (int i = page * size; i < hits.length; i++) {
                    NumericDocValues values = MultiDocValues.getNumericValues(searcher.getIndexReader(), "id");
                    if (values != null && values.advanceExact(hits[i].doc)) {
                        ids.add(values.longValue());
                    }
                }
                return new Found(ids, found.totalHits.value);
            } finally {
                searchers.release(searcher);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
