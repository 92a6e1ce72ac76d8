package yarrowmark.runner;

import java.io.Console;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import yarrowmark.runner.bench.BenchClient;
import yarrowmark.runner.bench.Refused;
import yarrowmark.runner.command.VisibleText;
import yarrowmark.runner.facts.HardwareFacts;
import yarrowmark.runner.protocol.Api;

/** Finds out which model and unit of the shelf this computer is, and what was looked at before the first run. */
final class ComputerIdentity {
    /** What the command line says of it. @param newModel maker, name and class, or nothing. @param facts typed, by key. @param yes whether nobody is asked */
    record Said(
            @Nullable String model,
            List<String> newModel,
            @Nullable String unit,
            Map<String, String> facts,
            boolean yes) {}

    private final BenchClient client;
    private final HardwareFacts hardware;
    private final Said said;
    private final Consumer<String> tell;

    ComputerIdentity(BenchClient client, HardwareFacts hardware, Said said, Consumer<String> tell) {
        this.client = client;
        this.hardware = hardware;
        this.said = said;
        this.tell = tell;
    }

    /** What begins a session. @param tested folder whose drive is tested */
    Api.Start start(Path tested) {
        List<Api.Fact> all = new ArrayList<>();
        hardware.read(tested).forEach((key, value) -> {
            if (!said.facts().containsKey(key)) {
                all.add(new Api.Fact(key, value, true));
            }
        });
        said.facts().forEach((key, value) -> all.add(new Api.Fact(key, value, false)));
        if (!said.newModel().isEmpty()) {
            if (said.newModel().size() != 3) {
                throw new Refused(0, "A new model has a maker, a name and a class: --new-model \"Maker,Name,laptop\".");
            }
            return new Api.Start(
                    null,
                    new Api.NewModel(
                            said.newModel().get(0).strip(),
                            said.newModel().get(1).strip(),
                            said.newModel().get(2).strip().toUpperCase(Locale.ROOT)),
                    null,
                    all,
                    hardware.onMains(),
                    hardware.batteryLevel(),
                    checks(said.newModel().get(2).strip().toUpperCase(Locale.ROOT)));
        }
        Api.Model chosen = chosen(said.model() == null ? hardware.computer() : said.model());
        List<Api.Unit> units = client.units(chosen.id());
        Api.Unit own = units.stream()
                .filter(u -> said.unit() == null || u.label().equalsIgnoreCase(said.unit()))
                .findFirst()
                .orElse(null);
        if (said.unit() != null && own == null) {
            throw new Refused(
                    0,
                    chosen + " has no unit " + said.unit() + "; it has "
                            + units.stream().map(Api.Unit::label).toList() + ".");
        }
        tell.accept("This is " + chosen + (own == null ? "" : ", " + own.label()) + ".");
        return new Api.Start(
                chosen.id(),
                null,
                own == null ? null : own.id(),
                all,
                hardware.onMains(),
                hardware.batteryLevel(),
                checks(chosen.deviceClass()));
    }

    private Api.Model chosen(String words) {
        List<Api.Model> found = client.models(words);
        if (said.model() != null) {
            List<Api.Model> exact = found.stream()
                    .filter(m -> m.toString().equalsIgnoreCase(words.strip())
                            || m.name().equalsIgnoreCase(words.strip()))
                    .toList();
            if (exact.size() == 1 || found.size() == 1) {
                return exact.size() == 1 ? exact.get(0) : found.get(0);
            }
        }
        Console console = System.console();
        if (console == null || said.yes()) {
            throw new Refused(
                    0,
                    found.isEmpty()
                            ? "The shelf has no model called “" + words
                                    + "”. Say which with --model, or make one with --new-model."
                            : "Which model is this? --model takes one of " + found + ".");
        }
        List<Api.Model> offered = found.isEmpty() ? client.models("") : found;
        for (int i = 0; i < offered.size(); i++) {
            console.printf("  %d  %s%n", i + 1, VisibleText.of(String.valueOf(offered.get(i))));
        }
        String answer = console.readLine("Which model is this computer? Its number: ");
        try {
            return offered.get(Integer.parseInt(answer == null ? "" : answer.strip()) - 1);
        } catch (NumberFormatException | IndexOutOfBoundsException e) {
            throw new Refused(0, "There is no such number. --new-model makes a model that the shelf does not have.");
        }
    }

    /** What the lab wants looked at. Where nobody is asked, nothing is ticked: it is not known. */
    private List<Api.Check> checks(String deviceClass) {
        Console console = said.yes() ? null : System.console();
        List<Api.Check> checks = new ArrayList<>();
        for (String line : client.checklist(deviceClass)) {
            String answer = console == null ? null : console.readLine("%s? [y/N] ", VisibleText.of(line));
            checks.add(new Api.Check(line, answer != null && answer.strip().equalsIgnoreCase("y")));
        }
        return checks;
    }
}
