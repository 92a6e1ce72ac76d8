package yarrowmark.server.writeup;

import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.platform.Problem;

/** Where a piece stands between others. */
final class PiecePlaces {
    private PiecePlaces() {}

    static double between(List<Piece> all, @Nullable Long after, @Nullable Piece moving) {
        List<Piece> others = all.stream().filter(p -> p != moving).toList();
        int at = 0;
        if (after != null) {
            at = others.stream().map(p -> p.id).toList().indexOf(after) + 1;
            if (at == 0) {
                throw Problem.notFound("piece", after);
            }
        }
        double low = at == 0 ? 0 : others.get(at - 1).place;
        double high = at == others.size() ? low + 2 : others.get(at).place;
        double middle = (low + high) / 2;
        if (middle > low && middle < high) {
            return middle;
        }
        // Halved so often that there is no number left between: all get new ones.
        double next = 0;
        for (int i = 0; i < others.size(); i++) {
            others.get(i).place = ++next + (i >= at ? 1 : 0);
        }
        return at + 1.0;
    }
}
