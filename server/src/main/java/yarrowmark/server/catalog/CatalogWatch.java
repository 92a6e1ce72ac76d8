package yarrowmark.server.catalog;

import jakarta.persistence.PostPersist;
import jakarta.persistence.PostRemove;
import jakarta.persistence.PostUpdate;
import org.springframework.context.ApplicationEventPublisher;
import yarrowmark.server.platform.change.RecordsChanged;

/** Tells when something of the catalogue is written, whoever wrote it. */
class CatalogWatch {
    record CatalogChanged() implements RecordsChanged {}

    private final ApplicationEventPublisher events;

    CatalogWatch(ApplicationEventPublisher events) {
        this.events = events;
    }

    @PostPersist
    @PostUpdate
    @PostRemove
    void written(Object entity) {
        events.publishEvent(new CatalogChanged());
    }
}
