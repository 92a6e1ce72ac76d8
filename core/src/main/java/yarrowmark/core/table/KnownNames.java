package yarrowmark.core.table;

import java.util.Optional;
import yarrowmark.core.measure.Direction;

/** What is on the shelf and in the catalogue already, as far as a table may mean it. */
public interface KnownNames {
    record Named(String maker, String model) {
        public String full() {
            return maker + " " + model;
        }
    }

    record KnownTest(String name, String unit, Direction direction, String group, String suite, String version) {}

    /** A model by its whole name or by the name without its maker, whatever the case, where only one is called so. */
    Optional<Named> model(String name);

    /** The one whose name is most like it, where one is alike enough to ask. */
    Optional<Named> nearest(String name);

    /** The longest known maker that a name begins with. */
    Optional<String> makerOf(String name);

    /** A test into which scores can be typed. */
    Optional<KnownTest> test(String name);

    /** Nothing is known yet. */
    KnownNames NONE = new KnownNames() {
        @Override
        public Optional<Named> model(String name) {
            return Optional.empty();
        }

        @Override
        public Optional<Named> nearest(String name) {
            return Optional.empty();
        }

        @Override
        public Optional<String> makerOf(String name) {
            return Optional.empty();
        }

        @Override
        public Optional<KnownTest> test(String name) {
            return Optional.empty();
        }
    };
}
