package yarrowmark.server.shelf;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import org.jspecify.annotations.Nullable;

/** What a maker claims of a model: a fact by its key, or a score in a metric; exactly one of the two. */
@Entity
class Claim {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    long modelId;

    @Nullable
    String factKey;

    Long metricId;
    String value;
    String source;
}
