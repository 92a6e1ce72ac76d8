package yarrowmark.runner.command;

import yarrowmark.runner.protocol.Api;

/** A run of a command gave no score. */
public final class CommandFailed extends Exception {
    private static final long serialVersionUID = 1L;

    private final Api.Reason reason;
    private final String output;

    /** @param output the end of what it printed */
    public CommandFailed(Api.Reason reason, String words, String output) {
        super(words);
        this.reason = reason;
        this.output = output;
    }

    public Api.Reason reason() {
        return reason;
    }

    public String output() {
        return output;
    }
}
