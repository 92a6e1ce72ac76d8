package yarrowmark.core.standing;

/** The grid of core/src/test/r/standing.R, made by the same generator. */
public final class RGrid {
    public static final int ROWS = 400;
    public static final int COLUMNS = 40;

    private long state = 20_261_125;
    private final double[] weights = new double[COLUMNS];
    private final MeritGrid grid;

    public RGrid() {
        for (int c = 0; c < COLUMNS; c++) {
            weights[c] = 0.5 + draw();
        }
        MeritGrid.Builder builder = MeritGrid.builder(ROWS, COLUMNS);
        for (int r = 0; r < ROWS; r++) {
            double speed = 2 * draw();
            for (int c = 0; c < COLUMNS; c++) {
                double value = speed + (c + 1) / 10.0 + 0.3 * draw();
                if (draw() < 0.7 || c == r % COLUMNS) {
                    builder.cell(r, c, value, 1e-5);
                }
            }
        }
        grid = builder.build();
    }

    private double draw() {
        state = state * 16_807 % 2_147_483_647;
        return state / 2_147_483_647.0;
    }

    public MeritGrid grid() {
        return grid;
    }

    public double[] weights() {
        return weights.clone();
    }
}
