package yarrowmark.core.setup;

/** What a model measures on the outside, so that it is typed and shown like any fact. These are no facts of a configuration. */
public final class ModelKeys {
    public static final FactKey WIDTH = size("model.width", "Width");
    public static final FactKey DEPTH = size("model.depth", "Depth");
    public static final FactKey HEIGHT = size("model.height", "Height");
    public static final FactKey WEIGHT = FactKey.of("model.weight", "Weight", FactGroup.OTHER, FactKey.Type.DECIMAL)
            .measuring(Dimension.MASS)
            .within(1, 200_000);
    public static final FactKey BATTERY = FactKey.of(
                    "model.battery", "Battery capacity", FactGroup.OTHER, FactKey.Type.DECIMAL)
            .measuring(Dimension.ENERGY)
            .within(0.1, 10_000)
            .bare("Wh");

    private ModelKeys() {}

    private static FactKey size(String key, String label) {
        return FactKey.of(key, label, FactGroup.OTHER, FactKey.Type.DECIMAL)
                .measuring(Dimension.LENGTH)
                .within(0.001, 5)
                .bare("mm");
    }
}
