package yarrowmark.server.ledger.sample;

import java.util.Set;
import org.springframework.context.ApplicationEventPublisher;
import yarrowmark.server.platform.change.RecordsChanged;

/** For whoever fills the table of samples past the program, which keeps what it read of them. */
public final class DirectWrites {
    private DirectWrites() {}

    public static void tell(ApplicationEventPublisher program, long configuration) {
        program.publishEvent((RecordsChanged) new SamplesChanged(configuration, Set.of()));
    }
}
