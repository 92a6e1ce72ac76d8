package yarrowmark.server.catalog;

import org.springframework.context.ApplicationEventPublisher;

/** For whoever fills the tables of the catalogue past the program, which keeps what it read of them. */
public final class DirectCatalogWrites {
    private DirectCatalogWrites() {}

    public static void tell(ApplicationEventPublisher program) {
        program.publishEvent(new CatalogWatch.CatalogChanged());
    }
}
