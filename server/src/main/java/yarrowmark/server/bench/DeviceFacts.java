package yarrowmark.server.bench;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactReader;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.configuration.FactSource;
import yarrowmark.server.shelf.configuration.GivenFact;

/** Reads what a device says about itself. */
final class DeviceFacts {
    private static final Logger LOG = LoggerFactory.getLogger(DeviceFacts.class);

    private DeviceFacts() {}

    /** Typed facts are read like those of any form; a detected choice is kept under the name the vocabulary has for it. */
    static List<GivenFact> read(List<DeviceWork.ToldFact> told) {
        List<Problem.Refused> refused = new ArrayList<>();
        List<GivenFact> facts = new ArrayList<>();
        for (DeviceWork.ToldFact t : told) {
            FactKey key = FactVocabulary.entry(t.key());
            FactReader.Reading reading =
                    t.detected() && key.type() != FactKey.Type.CHOICE ? null : FactReader.read(key, t.value());
            if (reading instanceof FactReader.Understood u) {
                facts.add(new GivenFact(t.key(), u.value(), t.detected() ? FactSource.DETECTED : FactSource.TYPED));
            } else if (t.detected() && FactReader.unfit(key, t.value()).isPresent()) {
                // What no device can be is not known rather than a reason not to test it.
                LOG.warn("A device detected an impossible {} and goes on without it", key.key());
            } else if (t.detected()) {
                facts.add(new GivenFact(t.key(), t.value(), FactSource.DETECTED));
            } else {
                refused.add(new Problem.Refused(t.key(), ((FactReader.NotUnderstood) require(reading)).reason()));
            }
        }
        if (!refused.isEmpty()) {
            throw Problem.refused("facts-refused", refused);
        }
        return facts;
    }
}
