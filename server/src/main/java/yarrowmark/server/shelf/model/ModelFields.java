package yarrowmark.server.shelf.model;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import yarrowmark.core.setup.ModelKeys;
import yarrowmark.server.platform.Problem;

/** What people may change of a model, in the order it is shown. A new field is a column and one line here. */
@Component
public class ModelFields {
    private final MakerRepository makers;
    private final ModelRepository models;
    private final List<EditableField<Model>> all;
    private final Map<String, EditableField<Model>> byName;

    ModelFields(MakerRepository makers, ModelRepository models, Clock clock) {
        this.makers = makers;
        this.models = models;
        all = List.of(
                EditableField.<Model>text("maker", "Maker", "", 120, m -> m.maker.name(), (m, v) -> m.maker = maker(v))
                        .mandatory(),
                EditableField.<Model>text("name", "Name", "", 120, m -> m.name, (m, v) -> m.name = v)
                        .mandatory(),
                new EditableField<Model>(
                        "deviceClass",
                        "Class",
                        "laptop",
                        20,
                        true,
                        m -> m.deviceClass.name(),
                        (m, v) -> m.deviceClass = DeviceClass.valueOf(v),
                        ModelFields::readClass,
                        v -> v.toLowerCase(Locale.ROOT)),
                date("released", "Released", m -> m.released, (m, v) -> m.released = v, clock),
                new EditableField<Model>(
                        "price",
                        "Price",
                        "1 299 EUR",
                        40,
                        false,
                        m -> m.price == null ? null : Prices.kept(m.price, m.currency),
                        (m, v) -> {
                            m.price = v == null ? null : Prices.amount(v);
                            m.currency = v == null ? null : Prices.currency(v);
                        },
                        Prices::read,
                        v -> v),
                date("priceOn", "Price seen on", m -> m.priceOn, (m, v) -> m.priceOn = v, clock),
                EditableField.text(
                        "priceSource",
                        "Price seen at",
                        "a shop, a price list",
                        300,
                        m -> m.priceSource,
                        (m, v) -> m.priceSource = v),
                EditableField.quantity("width", ModelKeys.WIDTH, m -> plain(m.width), (m, v) -> m.width = decimal(v)),
                EditableField.quantity("depth", ModelKeys.DEPTH, m -> plain(m.depth), (m, v) -> m.depth = decimal(v)),
                EditableField.quantity(
                        "height", ModelKeys.HEIGHT, m -> plain(m.height), (m, v) -> m.height = decimal(v)),
                EditableField.quantity(
                        "weight", ModelKeys.WEIGHT, m -> plain(m.weight), (m, v) -> m.weight = decimal(v)),
                EditableField.quantity(
                        "battery", ModelKeys.BATTERY, m -> plain(m.battery), (m, v) -> m.battery = decimal(v)),
                EditableField.text(
                        "screen", "Screen", "14 in, 1920 × 1200, matt", 300, m -> m.screen, (m, v) -> m.screen = v),
                EditableField.text("ports", "Ports", "2 USB-C, headphones", 500, m -> m.ports, (m, v) -> m.ports = v),
                EditableField.text("wireless", "Wireless", "", 300, m -> m.wireless, (m, v) -> m.wireless = v),
                new EditableField<Model>(
                        "review",
                        "Review",
                        "waiting, in review, reviewed",
                        20,
                        false,
                        m -> m.review == null ? null : m.review.name(),
                        (m, v) -> m.review = v == null ? null : ReviewState.valueOf(v),
                        ModelFields::readReview,
                        v -> v.toLowerCase(Locale.ROOT).replace('_', ' ')),
                new EditableField<Model>(
                        "predecessor",
                        "Follows",
                        "maker and name of the model before",
                        260,
                        false,
                        m -> m.predecessorId == null ? null : Long.toString(m.predecessorId),
                        this::follow,
                        this::readModel,
                        v -> models.findWithMakerById(Long.parseLong(v))
                                .map(Model::fullName)
                                .orElse(v)),
                EditableField.text("notes", "Notes", "", 10_000, m -> m.notes, (m, v) -> m.notes = v));
        byName = all.stream().collect(Collectors.toMap(EditableField::name, Function.identity()));
    }

    public List<EditableField<Model>> all() {
        return all;
    }

    public Optional<EditableField<Model>> find(String name) {
        return Optional.ofNullable(byName.get(name));
    }

    public EditableField<Model> field(String name) {
        return find(name).orElseThrow(() -> Problem.notFound("field of a model", "\"" + name + "\""));
    }

    public Maker maker(String name) {
        return makers.findByName(name).orElseGet(() -> makers.saveAndFlush(new Maker(name)));
    }

    private static EditableField<Model> date(
            String name,
            String label,
            Function<Model, @Nullable LocalDate> get,
            BiConsumer<Model, @Nullable LocalDate> set,
            Clock clock) {
        return new EditableField<>(
                name,
                label,
                "2026-03-01",
                40,
                false,
                m -> get.apply(m) == null ? null : get.apply(m).toString(),
                (m, v) -> set.accept(m, v == null ? null : LocalDate.parse(v)),
                text -> Dates.read(text, "A date of this model", clock),
                v -> v);
    }

    /** A line of generations has a beginning: no model may come before itself. */
    private void follow(Model model, @Nullable String predecessor) {
        Long before = predecessor == null ? null : Long.valueOf(predecessor);
        for (Long at = before;
                at != null;
                at = models.findById(at).map(m -> m.predecessorId).orElse(null)) {
            if (at.equals(model.id())) {
                throw Problem.invalid(
                        "follows-itself",
                        model.fullName()
                                + " would come before itself: the model it should follow comes after it in the line.");
            }
        }
        model.predecessorId = before;
    }

    private String readModel(String typed) {
        List<Model> named = models.findNamed(typed);
        if (named.size() == 1) {
            return Long.toString(named.get(0).id());
        }
        throw Problem.invalid(
                "unknown-model",
                named.isEmpty()
                        ? "No model on the shelf is called \"" + typed
                                + "\". Write its maker and its name as they stand on the shelf."
                        : "Several models are called \"" + typed + "\": "
                                + named.stream().map(Model::fullName).collect(Collectors.joining(", "))
                                + ". Write the maker as well.");
    }

    private static String readReview(String typed) {
        for (ReviewState state : ReviewState.values()) {
            if (state.name().equalsIgnoreCase(typed.replace(' ', '_'))) {
                return state.name();
            }
        }
        throw Problem.invalid(
                "unknown-state", "\"" + typed + "\" is no state of a review. There are: waiting, in review, reviewed.");
    }

    private static String readClass(String typed) {
        for (DeviceClass c : DeviceClass.values()) {
            if (c.name().equalsIgnoreCase(typed)) {
                return c.name();
            }
        }
        throw Problem.invalid(
                "unknown-class",
                "\"" + typed + "\" is no class of device. There are: "
                        + java.util.Arrays.stream(DeviceClass.values())
                                .map(c -> c.name().toLowerCase(Locale.ROOT))
                                .collect(Collectors.joining(", "))
                        + ".");
    }

    private static @Nullable String plain(@Nullable BigDecimal number) {
        return number == null ? null : number.stripTrailingZeros().toPlainString();
    }

    private static @Nullable BigDecimal decimal(@Nullable String kept) {
        return kept == null ? null : new BigDecimal(kept);
    }
}
