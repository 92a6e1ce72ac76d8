package yarrowmark.server.ledger.line;

import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.shelf.search.ShelfIndex.Relation;

/**
 * Which lines of the ledger are wanted; null means any.
 *
 * @param version  of a suite
 * @param person   who carried it out
 * @param from     first day, in UTC
 * @param to       last day, in UTC
 * @param fact     of the configuration, with how it relates to the value as a person writes it
 * @param relation how
 * @param value    to what
 * @param readings that somebody picked, and no others
 */
public record LedgerFilter(
        @Nullable Long model,
        @Nullable Long configuration,
        @Nullable Long test,
        @Nullable Long session,
        @Nullable LedgerState state,
        @Nullable Long version,
        @Nullable @Size(max = 80) String person,
        @Nullable LocalDate from,
        @Nullable LocalDate to,
        @Nullable @Size(max = 80) String fact,
        @Nullable Relation relation,
        @Nullable @Size(max = 200) String value,
        @Nullable @Size(max = 200) Set<Long> readings) {}
