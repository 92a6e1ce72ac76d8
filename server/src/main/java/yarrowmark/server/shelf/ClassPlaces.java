package yarrowmark.server.shelf;

import java.util.Optional;
import yarrowmark.server.shelf.model.DeviceClass;

/** Where a configuration stands among its class: told by whoever ranks, asked by whoever would be a room too far away. */
public interface ClassPlaces {
    /**
     * @param best   1 + the number clearly above
     * @param worst  the number placed less those clearly below
     * @param placed how many of the class have a place
     * @param over   what is ranked, in words
     */
    record ClassPlace(int order, int best, int worst, int placed, DeviceClass deviceClass, String over) {}

    /** Empty where it has no place. */
    Optional<ClassPlace> of(long configurationId);
}
