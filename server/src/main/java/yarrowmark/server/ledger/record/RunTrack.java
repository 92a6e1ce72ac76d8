package yarrowmark.server.ledger.record;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.util.Arrays;
import org.hibernate.annotations.Immutable;

/** What a sensor said during a run. */
@Entity
@Immutable
public class RunTrack {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long runId;
    private String kind;
    private String name;
    private String unit;
    private int stepMs;
    private byte[] packed;

    protected RunTrack() {}

    RunTrack(long runId, Ledger.Track track) {
        this.runId = runId;
        this.kind = track.kind();
        this.name = track.name();
        this.unit = track.unit();
        this.stepMs = track.stepMs();
        this.packed = PackedSamples.pack(
                track.values().stream().mapToDouble(Double::doubleValue).toArray());
    }

    public long runId() {
        return runId;
    }

    public Ledger.Track track() {
        return new Ledger.Track(
                kind,
                name,
                unit,
                stepMs,
                Arrays.stream(PackedSamples.unpack(packed)).boxed().toList());
    }
}
