package yarrowmark.server.platform.records;

import com.fasterxml.jackson.databind.JavaType;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.oas.models.media.Schema;
import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Tells the API document which properties of our records are always there: all but those marked Nullable. The
 * interface's types are generated from it, so that a missing value has to be handled and a present one has not.
 */
@Component
class RecordShapes implements ModelConverter {
    @Override
    public @Nullable Schema<?> resolve(
            AnnotatedType type, ModelConverterContext context, Iterator<ModelConverter> chain) {
        if (!chain.hasNext()) {
            return null;
        }
        Schema<?> schema = chain.next().resolve(type, context, chain);
        JavaType javaType = Json.mapper().constructType(type.getType());
        Class<?> raw = javaType == null ? null : javaType.getRawClass();
        if (raw != null && raw.isRecord() && schema != null) {
            Schema<?> model = schema;
            if (schema.get$ref() != null) {
                model = context.getDefinedModels()
                        .get(schema.get$ref().substring(schema.get$ref().lastIndexOf('/') + 1));
            }
            if (model != null && model.getProperties() != null) {
                List<String> required = new ArrayList<>();
                for (RecordComponent c : raw.getRecordComponents()) {
                    boolean nullable = c.isAnnotationPresent(Nullable.class)
                            || c.getAnnotatedType().isAnnotationPresent(Nullable.class);
                    if (!nullable && model.getProperties().containsKey(c.getName())) {
                        required.add(c.getName());
                    }
                }
                model.setRequired(required);
            }
        }
        return schema;
    }
}
