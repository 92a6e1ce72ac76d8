package yarrowmark.server.shelf.configuration;

import static yarrowmark.server.platform.Require.require;

import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.setup.SetupComparison;
import yarrowmark.server.platform.Problem;

/** Facts of configurations side by side. */
@Service
public class Differences {
    private final ConfigurationRepository configurations;

    Differences(ConfigurationRepository configurations) {
        this.configurations = configurations;
    }

    /**
     * The facts of these configurations side by side.
     *
     * @param tested keys that are the change under test; null takes those that the configurations themselves are marked with
     */
    @Transactional(readOnly = true)
    public DifferencePage of(List<Long> ids, long base, @Nullable Collection<String> tested) {
        Map<Long, Configuration> found = found(ids);
        List<Configuration> in = ids.stream().distinct().map(found::get).toList();
        if (in.size() < 2 || !ids.contains(base)) {
            throw Problem.invalid(
                    "not-two", "A difference needs at least two configurations, and one of them as the base.");
        }
        return page(in, base, tested);
    }

    /** Each of these against the base, by its id. Between two models it is the device that is compared, so what was under test on one of them is not. */
    @Transactional(readOnly = true)
    public Map<Long, DifferencePage> each(long base, Collection<Long> others) {
        Map<Long, Configuration> found =
                found(Stream.concat(Stream.of(base), others.stream()).toList());
        return others.stream()
                .collect(Collectors.toMap(
                        id -> id,
                        id -> page(
                                List.of(found.get(base), found.get(id)),
                                base,
                                sameModel(require(found, base), require(found, id)) ? null : List.of())));
    }

    private Map<Long, Configuration> found(Collection<Long> ids) {
        Map<Long, Configuration> found = configurations.findWithFactsByIdIn(ids).stream()
                .collect(Collectors.toMap(Configuration::id, Function.identity()));
        ids.stream().filter(id -> !found.containsKey(id)).findFirst().ifPresent(id -> {
            throw Problem.notFound(Configurations.SUBJECT, id);
        });
        return found;
    }

    private static boolean sameModel(Configuration one, Configuration other) {
        return one.unit().model().id().equals(other.unit().model().id());
    }

    private static DifferencePage page(List<Configuration> in, long base, @Nullable Collection<String> tested) {
        Set<String> keys = new HashSet<>(tested == null ? List.of() : tested);
        if (tested == null) {
            // Told from the changed one, what was under test is the same: where its origin is here, its marks count.
            in.stream()
                    .filter(c -> c.id() != base || c.parent() != null && in.contains(c.parent()))
                    .forEach(c -> keys.addAll(c.tested()));
        }
        int at = in.stream().map(Configuration::id).toList().indexOf(base);
        return DifferencePage.of(
                in.stream().map(ConfigurationRow::of).toList(),
                base,
                SetupComparison.of(in.stream().map(Configuration::values).toList(), at, keys));
    }
}
