package yarrowmark.server.ledger.record;

import jakarta.persistence.Embeddable;
import org.jspecify.annotations.Nullable;

/**
 * A test that a person carries out in a session.
 *
 * @param runs null: as many as the session says
 * @param todo what to do, in the plan's words
 */
@Embeddable
public record TestByHand(long testId, @Nullable Integer runs, @Nullable String todo) {}
