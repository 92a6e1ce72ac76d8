package yarrowmark.server.shelf.search;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataAccessResourceFailureException;
import yarrowmark.server.shelf.model.DeviceClass;
import yarrowmark.server.shelf.model.ModelTouched;

/** The index while records are wrong or out of reach: states that a real database is hard to bring into. */
class ShelfIndexTest {
    private final ShelfIndexSource source = mock(ShelfIndexSource.class);
    private ShelfIndex index;

    @BeforeEach
    void make() throws IOException {
        index = new ShelfIndex(source);
    }

    private static ShelfIndexSource.ModelWords model(long id, String maker, String name) {
        return new ShelfIndexSource.ModelWords(
                id, maker, name, DeviceClass.LAPTOP, false, null, null, new ArrayList<>(), new ArrayList<>());
    }

    private void has(Long only, ShelfIndexSource.ModelWords... models) {
        doAnswer(call -> {
                    Consumer<ShelfIndexSource.ModelWords> take = call.getArgument(1);
                    List.of(models).forEach(take);
                    return null;
                })
                .when(source)
                .models(only == null ? eq(null) : eq(List.of(only)), any());
    }

    private void committed(long... models) {
        for (long model : models) {
            index.note(new ModelTouched(model));
        }
    }

    private List<Long> found(String words) {
        return index.models(ShelfIndex.Question.words(words), ShelfIndex.InOrder.SHELF, 0, 50)
                .ids();
    }

    /** A shelf with one such record could never be started again. */
    @Test
    void aRecordThatMakesNoSenseIsLeftOutAndStopsNoStart() {
        has(
                null,
                model(1, "Pellow", "Drift 11"),
                model(2, "x".repeat(40_000), "Drift 12"),
                model(3, "Pellow", "Drift 13"));
        index.start();
        assertThat(found("drift")).containsExactly(1L, 3L);
        assertThat(index.noticed())
                .hasSize(1)
                .allMatch(note -> note.contains("(model 2) cannot be searched") && note.length() < 500);
        has(2L, model(2, "Pellow", "Drift 12"));
        committed(2);
        assertThat(found("drift")).as("mended, it is found").containsExactly(1L, 2L, 3L);
        assertThat(index.noticed()).isEmpty();
    }

    @Test
    void whatChangesIsReadByTheNextSearchAndNeverTwiceInIt() {
        has(null, model(1, "Pellow", "Drift 11"));
        index.start();
        has(1L, model(1, "Pellow", "Slate 8"));
        committed(1, 1);
        committed(1);
        assertThat(found("slate")).containsExactly(1L);
        assertThat(found("drift")).isEmpty();
        has(1L);
        committed(1);
        assertThat(found("")).as("it is gone").isEmpty();
    }

    @Test
    void aCommitNeverFailsForTheIndexAndWhatCouldNotBeReadIsReadLater() {
        has(null, model(1, "Pellow", "Drift 11"));
        index.start();
        doThrow(new DataAccessResourceFailureException("the database is away"))
                .when(source)
                .models(eq(List.of(1L)), any());
        committed(1);
        assertThatThrownBy(() -> found("slate")).isInstanceOf(DataAccessResourceFailureException.class);
        has(1L, model(1, "Pellow", "Slate 8"));
        assertThat(found("slate")).containsExactly(1L);
    }
}
