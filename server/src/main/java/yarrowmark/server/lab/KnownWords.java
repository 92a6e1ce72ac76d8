package yarrowmark.server.lab;

import jakarta.persistence.EntityManager;
import jakarta.persistence.metamodel.Attribute;
import jakarta.persistence.metamodel.EntityType;
import jakarta.persistence.metamodel.ManagedType;
import jakarta.persistence.metamodel.SingularAttribute;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.records.FromElsewhere;

/** Where the records hold one word of a few, such as a group of tests or a class of devices, it is one of those. */
@Component
class KnownWords implements FromElsewhere {
    private final EntityManager entities;

    KnownWords(EntityManager entities) {
        this.entities = entities;
    }

    @Override
    @Transactional(readOnly = true)
    public void lookOver() {
        for (EntityType<?> entity : entities.getMetamodel().getEntities()) {
            check(entity, entity.getName(), "");
        }
    }

    private void check(ManagedType<?> type, String entity, String path) {
        for (Attribute<?, ?> attribute : type.getAttributes()) {
            String name = path + attribute.getName();
            if (attribute.getPersistentAttributeType() == Attribute.PersistentAttributeType.EMBEDDED
                    && attribute instanceof SingularAttribute<?, ?> one
                    && one.getType() instanceof ManagedType<?> inside) {
                check(inside, entity, name + ".");
            } else if (attribute.getJavaType().isEnum() && !attribute.isCollection()) {
                Set<String> known = Arrays.stream(attribute.getJavaType().getEnumConstants())
                        .map(word -> ((Enum<?>) word).name())
                        .collect(Collectors.toSet());
                List<String> used = entities.createQuery(
                                "select distinct cast(e." + name + " as string) from " + entity + " e where e." + name
                                        + " is not null",
                                String.class)
                        .getResultList();
                for (String word : used) {
                    if (!known.contains(word)) {
                        throw Problem.invalid(
                                "unknown-word",
                                "“" + LabColumn.shortened(word) + "” is no " + name + " of a " + entity
                                        + " that this Yarrowmark knows");
                    }
                }
            }
        }
    }
}
