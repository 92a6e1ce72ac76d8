package yarrowmark.server.shelf;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.platform.PlainLine;
import yarrowmark.server.shelf.configuration.ConfigurationFacts;
import yarrowmark.server.shelf.configuration.ConfigurationPage;
import yarrowmark.server.shelf.configuration.ConfigurationRow;
import yarrowmark.server.shelf.configuration.Configurations;
import yarrowmark.server.shelf.configuration.DifferencePage;
import yarrowmark.server.shelf.configuration.Differences;
import yarrowmark.server.shelf.configuration.TypedFacts;

@RestController
@RequestMapping("/api")
class ConfigurationController {
    private static final int MOST_ON_TABLE = 8;

    /**
     * @param text as typed; absent where the fact stays as it is
     * @param read whether it comes out of what a tool printed
     */
    record TypedFactBody(@NotBlank @Size(max = 80) String key, @Nullable @Size(max = 2_000) String text, boolean read) {
        TypedFacts.Typed typed() {
            return new TypedFacts.Typed(key, text, read);
        }
    }

    /** @param parentId the configuration that facts without text are taken from */
    record NewConfigurationBody(
            @Nullable Long parentId,
            @Nullable @Size(max = 200) String name,
            @NotNull @Size(max = TypedFacts.MOST_FACTS) List<@Valid @NotNull TypedFactBody> facts) {}

    /** @param seen fingerprint of the facts the person saw */
    record FactsBody(
            @NotBlank @Size(max = 64) String seen,
            @NotNull @Size(max = TypedFacts.MOST_FACTS) List<@Valid @NotNull TypedFactBody> facts) {}

    record CorrectionBody(
            @NotBlank @Size(max = 64) String seen,
            @NotBlank @Size(max = 80) String key,
            @Nullable @Size(max = 2_000) String text,
            @NotBlank(message = "must say why the fact was wrong") @Size(max = 500) String reason) {}

    record PickBody(@NotBlank @Size(max = 80) String key, boolean other) {}

    record NameBody(@NotNull @Size(max = 200) String from, @NotBlank @PlainLine @Size(max = 200) String to) {}

    record RetiredBody(boolean retired) {}

    record TestedBody(@NotNull @Size(max = 50) List<@NotBlank @Size(max = 80) String> keys) {}

    private final ShelfPages pages;
    private final Configurations configurations;
    private final ConfigurationFacts configurationFacts;
    private final Differences differences;

    ConfigurationController(
            ShelfPages pages,
            Configurations configurations,
            ConfigurationFacts configurationFacts,
            Differences differences) {
        this.differences = differences;
        this.pages = pages;
        this.configurations = configurations;
        this.configurationFacts = configurationFacts;
    }

    @GetMapping("/configurations")
    List<ConfigurationRow> configurations(@RequestParam @Size(max = MOST_ON_TABLE) List<@NotNull Long> ids) {
        return pages.configurations(ids);
    }

    /** Configurations of one unit with equal facts, next to each other. */
    @GetMapping("/configurations/twins")
    List<ConfigurationRow> twins() {
        return pages.twins();
    }

    @GetMapping("/configurations/difference")
    DifferencePage difference(
            @RequestParam @Size(max = MOST_ON_TABLE) List<@NotNull Long> ids,
            @RequestParam long base,
            @RequestParam(required = false) @Nullable List<String> tested) {
        return differences.of(ids, base, tested);
    }

    @GetMapping("/configurations/{id}")
    ConfigurationPage configuration(@PathVariable long id) {
        return pages.configuration(id);
    }

    @PostMapping("/units/{unitId}/configurations")
    ConfigurationPage make(@PathVariable long unitId, @Valid @RequestBody NewConfigurationBody body, Principal who) {
        return pages.configuration(configurations.make(
                unitId,
                body.parentId(),
                body.name(),
                body.facts().stream().map(TypedFactBody::typed).toList(),
                who.getName()));
    }

    @PutMapping("/configurations/{id}/facts")
    ConfigurationPage change(@PathVariable long id, @Valid @RequestBody FactsBody body, Principal who) {
        configurationFacts.change(
                id, body.seen(), body.facts().stream().map(TypedFactBody::typed).toList(), who.getName());
        return pages.configuration(id);
    }

    @PostMapping("/configurations/{id}/corrections")
    ConfigurationPage correct(@PathVariable long id, @Valid @RequestBody CorrectionBody body, Principal who) {
        configurationFacts.correct(id, body.seen(), body.key(), body.text(), body.reason(), who.getName());
        return pages.configuration(id);
    }

    @PostMapping("/configurations/{id}/picks")
    ConfigurationPage pick(@PathVariable long id, @Valid @RequestBody PickBody body, Principal who) {
        configurationFacts.pick(id, body.key(), body.other(), who.getName());
        return pages.configuration(id);
    }

    @PutMapping("/configurations/{id}/name")
    ConfigurationPage rename(@PathVariable long id, @Valid @RequestBody NameBody body, Principal who) {
        configurations.rename(id, body.from(), body.to(), who.getName());
        return pages.configuration(id);
    }

    @PutMapping("/configurations/{id}/retired")
    ConfigurationPage retire(@PathVariable long id, @RequestBody RetiredBody body, Principal who) {
        configurations.retire(id, body.retired(), who.getName());
        return pages.configuration(id);
    }

    @PutMapping("/configurations/{id}/tested")
    ConfigurationPage test(@PathVariable long id, @Valid @RequestBody TestedBody body, Principal who) {
        configurations.test(id, new TreeSet<>(body.keys()), who.getName());
        return pages.configuration(id);
    }

    @DeleteMapping("/configurations/{id}")
    void remove(@PathVariable long id, Principal who) {
        configurations.remove(id, who.getName());
    }
}
