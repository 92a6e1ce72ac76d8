package yarrowmark.server.ledger.exchange;

import yarrowmark.server.platform.Problem;

/** How far an import has come, and whether it is to go on. Written by the import, read and cancelled by others. */
public class ImportProgress {
    /** What an import does. */
    public enum Step {
        READING,
        STORING,
        SAMPLES,
        DONE
    }

    private volatile Step step = Step.READING;
    private volatile int done;
    private volatile int of;
    private volatile boolean cancelled;

    /** @throws Problem where somebody cancelled, so that everything so far is rolled back */
    public void at(Step now, int nowDone, int nowOf) {
        step = now;
        done = nowDone;
        of = nowOf;
        if (cancelled) {
            throw Problem.conflict("import-cancelled", "The import was cancelled. Nothing of the file was stored.");
        }
    }

    public void cancel() {
        cancelled = true;
    }

    Step step() {
        return step;
    }

    int done() {
        return done;
    }

    int of() {
        return of;
    }
}
