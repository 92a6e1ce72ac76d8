package yarrowmark.runner.command;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HexFormat;
import java.util.List;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import yarrowmark.runner.protocol.Api;

/** A command as whoever owns the device reads it before it is carried out, and the number by which that is remembered. */
public final class CommandWords {
    private CommandWords() {}

    /** Every word of it: what is not shown here is not carried out. */
    public static List<String> of(Api.TimedCommand command) {
        List<String> lines = new ArrayList<>();
        step(lines, "version", command.version());
        step(lines, "before", command.prepare());
        step(lines, "timed", command.run());
        step(lines, "after", command.cleanUp());
        if (command.folder() != null) {
            lines.add("in folder " + quoted(command.folder()));
        }
        if (command.environment() != null) {
            new TreeMap<>(command.environment()).forEach((k, v) -> lines.add("with " + quoted(k) + "=" + quoted(v)));
        }
        lines.add("expects exit code " + command.expectedExit() + ", ends it after " + command.limitSeconds() + " s");
        switch (command.cache()) {
            case WARM -> lines.add("once before the first run, untimed");
            case COLD -> lines.add("drops what the system keeps of files in memory before each run");
            case AS_IT_IS -> {}
        }
        if (command.between() != null) {
            lines.add("timed from a line with " + quoted(command.between().from()) + " to one with "
                    + quoted(command.between().to()));
        }
        return lines;
    }

    private static void step(List<String> lines, String when, Api.@Nullable Step step) {
        if (step != null) {
            lines.add(when
                    + (step.shell() ? " (by a shell): " : ": ")
                    + String.join(
                            " ",
                            step.arguments().stream().map(CommandWords::quoted).toList()));
        }
    }

    /** Plain words as they are; anything else in quotes, so that no two commands read alike and no terminal obeys it. */
    static String quoted(String argument) {
        if (argument.matches("[A-Za-z0-9_./:=+,%@^-]+")) {
            return argument;
        }
        StringBuilder out = new StringBuilder("'");
        argument.codePoints().forEach(c -> {
            if (c == '\'' || c == '\\') {
                out.append('\\').appendCodePoint(c);
            } else if (c == '\n') {
                out.append("\\n");
            } else if (c == '\t') {
                out.append("\\t");
            } else {
                VisibleText.append(out, c);
            }
        });
        return out.append('\'').toString();
    }

    /** Of everything that is shown. */
    public static String hash(Api.TimedCommand command) {
        return hash(of(command));
    }

    /** Of several together, in whatever order. */
    public static String hash(Collection<String> lines) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            lines.forEach(l -> digest.update((l + "\n").getBytes(StandardCharsets.UTF_8)));
            return HexFormat.of().formatHex(digest.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    /** One number for all commands of a plan, by which somebody agrees to them without a terminal. */
    public static String together(Collection<Api.TimedCommand> commands) {
        return hash(
                commands.stream().map(CommandWords::hash).sorted().distinct().toList());
    }
}
