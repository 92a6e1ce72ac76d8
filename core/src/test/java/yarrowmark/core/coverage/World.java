package yarrowmark.core.coverage;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.SessionNoise;
import yarrowmark.core.stats.SharedDay;
import yarrowmark.core.stats.UsualSpread;

/**
 * A made-up lab of known truth: devices, tests, days and runs, from which samples are drawn as a reviewer would measure
 * them. What the core says of them can be held against what is true.
 */
final class World {
    /**
     * @param devices  measured
     * @param tests    of one suite version
     * @param runs     in each session
     * @param sessions of each device
     * @param twice    how many of the devices have one session more
     * @param run      standard deviation of a run's logarithm
     * @param day      standard deviation from day to day, as a multiple of {@code run}
     * @param alike    whether a day moves all tests alike, rather than each by itself
     * @param levels   standard deviation of the devices' true levels
     * @param effect   by how much every second device is truly better, on merits
     * @param odd      by how much the last session of the first device that was measured again went wrong; 0 where none did
     * @param shape    of the noise of runs
     */
    record Setting(
            int devices,
            int tests,
            int runs,
            int sessions,
            int twice,
            double run,
            double day,
            boolean alike,
            double levels,
            double effect,
            double odd,
            Shape shape) {
        /** What is usual for such tests where nobody measured them: what is true here, of a run and its day together. */
        double usual() {
            return run * Math.sqrt(1 + day * day);
        }

        Setting withLevels(double deviation) {
            return new Setting(devices, tests, runs, sessions, twice, run, day, alike, deviation, effect, odd, shape);
        }

        Setting withEffect(double better) {
            return new Setting(devices, tests, runs, sessions, twice, run, day, alike, levels, better, odd, shape);
        }
    }

    /** How the noise of runs is distributed. */
    enum Shape {
        NORMAL("normal, equal"),
        /** Each device has its own noise, from a third of the usual to three times as much. */
        UNEQUAL("normal, tenfold unequal"),
        /** Each test has its own, scattering around the usual one by a factor of 1.6. */
        SCATTERED("scattered by 1.6"),
        /** The same by a factor of 2.2. */
        WIDE("scattered by 2.2"),
        /** Student's t with three degrees of freedom. */
        HEAVY("t with 3 degrees"),
        /** One run in ten is five deviations worse. */
        OUTLIERS("one in ten an outlier");

        final String words;

        Shape(String words) {
            this.words = words;
        }
    }

    private final SplittableRandom random;
    private final Setting setting;
    /** True levels by test and device, over all days. */
    final double[][] truth;

    final Sample[][] samples;
    final List<Noise> noise = new ArrayList<>();
    final SharedDay day;

    World(Setting setting, long seed) {
        this.setting = setting;
        this.random = new SplittableRandom(seed);
        this.truth = new double[setting.tests()][setting.devices()];
        this.samples = new Sample[setting.tests()][setting.devices()];
        draw();
        List<SessionNoise.Cell> cells = new ArrayList<>();
        List<Sample> all = new ArrayList<>();
        for (int j = 0; j < setting.tests(); j++) {
            for (int i = 0; i < setting.devices(); i++) {
                cells.add(new SessionNoise.Cell(i, j, samples[j][i]));
                all.add(samples[j][i]);
            }
        }
        Optional<NoisePrior> whole = NoisePrior.fit(all);
        List<Noise> runs = new ArrayList<>();
        for (int j = 0; j < setting.tests(); j++) {
            Optional<NoisePrior> lent = NoisePrior.fit(List.of(samples[j])).or(() -> whole);
            runs.add(
                    lent.isPresent()
                            ? Noise.ofRuns(lent)
                            : Noise.of(new UsualSpread(100 * Math.expm1(setting.usual())), Noise.Source.USUAL));
        }
        List<Optional<SessionNoise>> days = SessionNoise.fit(cells, runs).noise();
        for (int j = 0; j < runs.size(); j++) {
            noise.add(runs.get(j).withDays(days.get(j).orElseThrow()));
        }
        day = SharedDay.fit(cells, noise);
    }

    private void draw() {
        double[] ofTest = new double[setting.tests()];
        for (int j = 0; j < ofTest.length; j++) {
            ofTest[j] = switch (setting.shape()) {
                case SCATTERED -> Math.pow(1.6, random.nextGaussian());
                case WIDE -> Math.pow(2.2, random.nextGaussian());
                default -> 1;
            };
        }
        for (int i = 0; i < setting.devices(); i++) {
            double own =
                    setting.run() * (setting.shape() == Shape.UNEQUAL ? Math.pow(10, random.nextDouble() - 0.5) : 1);
            int sessions = setting.sessions() + (i < setting.twice() ? 1 : 0);
            double level = setting.levels() * random.nextGaussian() + (i % 2 == 1 ? setting.effect() : 0);
            double[] shared = new double[sessions];
            for (int s = 0; s < sessions; s++) {
                shared[s] = random.nextGaussian();
            }
            for (int j = 0; j < setting.tests(); j++) {
                truth[j][i] = level;
                List<Sample.OfSession> parts = new ArrayList<>();
                for (int s = 0; s < sessions; s++) {
                    double moved = setting.day()
                            * setting.run()
                            * ofTest[j]
                            * (setting.alike() ? shared[s] : random.nextGaussian());
                    // The session that went wrong is no day of the device's own.
                    double wrong = i == 0 && s > 0 && s == sessions - 1 ? setting.odd() : 0;
                    parts.add(new Sample.OfSession(100L * i + s, moments(level + moved + wrong, own * ofTest[j])));
                }
                samples[j][i] = Sample.of(parts);
            }
        }
    }

    private SampleMoments moments(double centre, double deviation) {
        double[] x = new double[setting.runs()];
        double mean = 0;
        for (int r = 0; r < x.length; r++) {
            x[r] = centre + deviation * standard();
            mean += x[r] / x.length;
        }
        double squares = 0;
        for (double v : x) {
            squares += (v - mean) * (v - mean);
        }
        return new SampleMoments(x.length, mean, squares, 0);
    }

    private double standard() {
        return switch (setting.shape()) {
            case HEAVY -> {
                double chi = 0;
                for (int k = 0; k < 3; k++) {
                    double g = random.nextGaussian();
                    chi += g * g;
                }
                // Of variance 1, so that all shapes are as noisy.
                yield random.nextGaussian() / Math.sqrt(chi / 3) / Math.sqrt(3);
            }
            // Its mean stays 0: what is measured is not moved by what disturbs it on average.
            case OUTLIERS -> random.nextInt(10) == 0 ? -4.5 + random.nextGaussian() : 0.5 + random.nextGaussian();
            default -> random.nextGaussian();
        };
    }
}
