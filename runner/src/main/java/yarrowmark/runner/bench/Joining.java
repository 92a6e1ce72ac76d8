package yarrowmark.runner.bench;

import java.util.Optional;

/** Takes the seat that a code stands for, in steps after each of which this computer may be killed and asked to go on. */
public final class Joining {
    private final BenchClient client;
    private final Outbox outbox;

    public Joining(BenchClient client, Outbox outbox) {
        this.client = client;
        this.outbox = outbox;
    }

    /**
     * @param address of the bench, as it was typed
     * @param device  what this computer is, in words for the bench
     * @return whether it had its seat already
     * @throws Refused where the bench says no
     * @throws Unreachable where it did not answer: the same call asks for the same seat later
     */
    public boolean join(String address, String code, String device) {
        Optional<Outbox.Seated> before = outbox.seated().filter(s -> s.address().equals(address));
        if (before.isPresent()) {
            client.seated(before.get().token(), before.get().shelf());
            return true;
        }
        try {
            String token = client.join(code, device, outbox.secret());
            outbox.seat(new Outbox.Seated(address, code, token, client.shelf()));
            return false;
        } catch (Refused e) {
            if (!e.isForLater()) {
                outbox.over();
            }
            throw e;
        }
    }
}
