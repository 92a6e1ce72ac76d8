package yarrowmark.server.catalog;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

/** The catalogue in memory is what was committed, whoever asked first. */
@ServerTest
class CatalogCacheTest {
    @LocalServerPort
    private int port;

    @Autowired
    private CatalogCache known;

    @Autowired
    private Catalog catalog;

    @Autowired
    private PlatformTransactionManager transactions;

    /** An import that is cancelled has made its tests and asked for what is computed from them before. */
    @Test
    void whatWasRolledBackIsNotKept() {
        List<Long> made = new TransactionTemplate(transactions).execute(t -> {
            List<Long> ids = catalog.ensure(
                    "Rolled back",
                    "1",
                    List.of(new Catalog.NewTest(
                            "gone",
                            "Gone",
                            "",
                            TestGroup.STORAGE,
                            List.of(new Catalog.NewMetric(
                                    "value", "Value", "s", Direction.LESS_IS_BETTER, Scale.RATIO, true)))));
            assertThat(known.tests(ids)).as("its own transaction sees it").hasSize(1);
            t.setRollbackOnly();
            return ids;
        });
        assertThat(known.tests(made)).isEmpty();
    }

    @Test
    void whatWasCommittedIsThereAtOnce() {
        Lab lab = new Lab(port);
        known.computed();
        lab.suite("Task 1; s; lower\n");
        assertThat(known.tests(lab.tests())).extracting(TestRow::name).containsExactly("Task 1");
    }
}
