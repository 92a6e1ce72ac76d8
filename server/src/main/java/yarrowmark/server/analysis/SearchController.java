package yarrowmark.server.analysis;

import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Locale;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.ConfigurationRow;
import yarrowmark.server.shelf.model.ModelRow;
import yarrowmark.server.shelf.search.ShelfIndex;

/** Go to anything: models, configurations and tests by a part of their name. */
@RestController
@RequestMapping("/api/search")
class SearchController {
    private static final int MOST = 8;

    record Found(List<ModelRow> models, List<ConfigurationRow> configurations, List<TestRow> tests) {}

    private final ShelfPages shelf;
    private final Catalog catalog;

    SearchController(ShelfPages shelf, Catalog catalog) {
        this.shelf = shelf;
        this.catalog = catalog;
    }

    @GetMapping
    Found search(@RequestParam @Size(max = 120) String q) {
        String words = q.strip().toLowerCase(Locale.ROOT);
        return new Found(
                shelf.search(ShelfIndex.Question.words(q), 0, MOST).rows(),
                shelf.searchConfigurations(q, MOST),
                catalog.tests().stream()
                        .filter(t -> t.name().toLowerCase(Locale.ROOT).contains(words))
                        .limit(MOST)
                        .toList());
    }
}
