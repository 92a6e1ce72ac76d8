package yarrowmark.runner;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** What can be said on the command line. */
final class RunnerOptions {
    @Parameters(
            index = "0",
            arity = "0..1",
            paramLabel = "ADDRESS",
            description = "of the bench, such as https://192.168.0.4:8443")
    @Nullable
    String address;

    @Parameters(index = "1", arity = "0..1", paramLabel = "CODE", description = "that the bench shows")
    @Nullable
    String code;

    @Option(names = "--facts", description = "prints what this computer is made of, and ends")
    boolean facts;

    @Option(names = "--plan-only", description = "joins, prints what would be done, and ends")
    boolean planOnly;

    @Option(names = "--tests", description = "lists what the runner can carry out, and ends")
    boolean listTests;

    @Option(
            names = "--offline",
            paramLabel = "PLAN.json",
            description = "carries out a plan without a bench, into a file that the ledger reads in")
    @Nullable
    Path offline;

    @Option(names = "--out", paramLabel = "FILE", description = "that --offline makes (default: beside the plan)")
    @Nullable
    Path out;

    @Option(
            names = "--folder",
            paramLabel = "DIR",
            description = "whose drive is tested (default: where it is started)")
    Path folder = Path.of("");

    @Option(
            names = "--model",
            paramLabel = "WORDS",
            description = "which model on the shelf this computer is; several that fit are asked about")
    @Nullable
    String model;

    @Option(
            names = "--new-model",
            paramLabel = "MAKER,NAME,CLASS",
            split = ",",
            description =
                    "a model that the shelf does not have yet; CLASS is laptop, desktop, mini, tablet, phone or board")
    List<String> newModel = new ArrayList<>();

    @Option(names = "--unit", paramLabel = "LABEL", description = "which unit of the model")
    @Nullable
    String unit;

    @Option(
            names = "--fact",
            paramLabel = "KEY=VALUE",
            description = "a fact that cannot be read here, such as room.temperature=\"21.5 °C\"")
    Map<String, String> typed = new LinkedHashMap<>();

    @Option(names = "--serials", description = "reads serial numbers of the computer and the drive, too")
    boolean serials;

    @Option(
            names = "--threads",
            paramLabel = "N",
            description = "how many \"all threads\" are (default: as many as there are)")
    int threads = Runtime.getRuntime().availableProcessors();

    @Option(
            names = "--quiet-wait",
            paramLabel = "SECONDS",
            description =
                    "how long is waited, before each test, for other programs to be quiet (default: ${DEFAULT-VALUE})",
            defaultValue = "60")
    int quietWait;

    @Option(
            names = "--write-limit",
            paramLabel = "GIB",
            description = "the most that storage tests write (default: what the plan needs, which is said and asked)")
    @Nullable
    Integer writeLimit;

    @Option(
            names = "--long-write",
            paramLabel = "GIB",
            description = "of which a long write writes so much at the most (default: ${DEFAULT-VALUE})",
            defaultValue = "8")
    int longWrite;

    @Option(
            names = "--fingerprint",
            paramLabel = "HEX",
            description = "of the bench's certificate, as the bench shows it; without it you are asked once")
    @Nullable
    String fingerprint;

    @Option(
            names = "--state",
            paramLabel = "DIR",
            description = "where what is measured is kept until the server has it")
    Path state = Path.of(System.getProperty("user.home"), ".local", "share", "yarrow-runner");

    @Option(
            names = "--no-commands",
            description = "carries out no command of a suite of the bench's own, whatever was agreed to before")
    boolean noCommands;

    @Option(
            names = "--commands",
            paramLabel = "NUMBER",
            description =
                    "agrees to the commands of this plan, by the number that --plan-only prints for all of them; --yes does not")
    @Nullable
    String commands;

    @Option(
            names = "--yes",
            description = "asks nothing: whatever would be asked about is agreed to, but no certificate and no command")
    boolean yes;
}
