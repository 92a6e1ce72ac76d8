package yarrowmark.server.platform;

import java.util.List;
import java.util.function.Function;

/**
 * One page of a list.
 *
 * @param page  from 0
 * @param total rows in all pages
 */
public record Page<T>(List<T> rows, int page, int size, long total) {
    public Page {
        rows = List.copyOf(rows);
    }

    public static <S, T> Page<T> of(org.springframework.data.domain.Page<S> found, Function<? super S, T> row) {
        return new Page<>(
                found.getContent().stream().<T>map(row).toList(),
                found.getNumber(),
                found.getSize(),
                found.getTotalElements());
    }
}
