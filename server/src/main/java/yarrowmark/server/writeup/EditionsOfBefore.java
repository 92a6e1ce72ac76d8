package yarrowmark.server.writeup;

import jakarta.persistence.EntityManager;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.server.platform.StartupTask;

/** Describes editions that were published before descriptions were kept, once. */
@Component
class EditionsOfBefore implements StartupTask {
    private static final Logger LOG = LoggerFactory.getLogger(EditionsOfBefore.class);

    private final EntityManager entities;
    private final JsonMapper json;
    private final TransactionTemplate transactions;

    EditionsOfBefore(EntityManager entities, JsonMapper json, PlatformTransactionManager transactions) {
        this.entities = entities;
        this.json = json;
        this.transactions = new TransactionTemplate(transactions);
    }

    @Override
    public int getPhase() {
        return 50;
    }

    @Override
    public void start() {
        transactions.executeWithoutResult(
                status -> entities.createQuery("select e.id from Edition e where e.description is null", Long.class)
                        .getResultList()
                        .forEach(this::describe));
    }

    private void describe(Long id) {
        String content = entities.createQuery("select e.content from Edition e where e.id = :id", String.class)
                .setParameter("id", id)
                .getSingleResult();
        String said = null;
        String photo = null;
        try {
            Frozen edition = json.readValue(content, Frozen.class);
            said = EditionDescription.of(edition);
            photo = edition.photo();
        } catch (RuntimeException e) {
            LOG.warn("Edition {} cannot be read, and stays without a description", id, e);
        }
        entities.createNativeQuery("update edition set description = :said, photo = :photo where id = :id")
                .setParameter("said", said == null ? "" : said)
                .setParameter("photo", photo)
                .setParameter("id", id)
                .executeUpdate();
    }
}
