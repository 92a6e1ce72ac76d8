package yarrowmark.server.catalog;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import yarrowmark.core.setup.VersionOrder;

/** The order of a suite's versions: by their numbers at first, and then as somebody says. */
final class VersionsInOrder {
    private VersionsInOrder() {}

    /** @param all of its suite in their order, with the one that was made */
    static void place(SuiteVersion made, List<SuiteVersion> all) {
        List<SuiteVersion> order = new ArrayList<>(
                all.stream().filter(v -> !Objects.equals(v.id(), made.id())).toList());
        int at = order.size();
        while (at > 0 && VersionOrder.INSTANCE.compare(order.get(at - 1).number(), made.number()) > 0) {
            at--;
        }
        order.add(at, made);
        number(order);
    }

    /** One earlier or later. @return whether it moved */
    static boolean move(SuiteVersion version, List<SuiteVersion> all, boolean earlier) {
        List<SuiteVersion> order = new ArrayList<>(all);
        int at = order.indexOf(version);
        int to = earlier ? at - 1 : at + 1;
        if (at < 0 || to < 0 || to >= order.size()) {
            return false;
        }
        order.remove(at);
        order.add(to, version);
        number(order);
        return true;
    }

    private static void number(List<SuiteVersion> order) {
        for (int i = 0; i < order.size(); i++) {
            order.get(i).move(i);
        }
    }
}
