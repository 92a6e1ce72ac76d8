package yarrowmark.server.writeup;

import static yarrowmark.server.platform.Require.require;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.databind.JavaType;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.media.StringSchema;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.GlobalOpenApiCustomizer;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;

/** What is in a piece is kept as JSON, and {@link PieceShape} sees to what it is: the API document says that. */
@Component
class PieceBodyInApi implements ModelConverter, GlobalOpenApiCustomizer {
    private static final String OF = "of";

    @Override
    public @Nullable Schema<?> resolve(
            AnnotatedType type, ModelConverterContext context, Iterator<ModelConverter> chain) {
        if (!chain.hasNext()) {
            return null;
        }
        JavaType java = Json.mapper().constructType(type.getType());
        return java != null && java.getRawClass() == JsonNode.class
                ? context.resolve(new AnnotatedType(PieceBody.class).resolveAsRef(true))
                : chain.next().resolve(type, context, chain);
    }

    /** Each question says what it is of: the word is part of its own shape, and leads to it. */
    @Override
    public void customise(OpenAPI document) {
        Map<String, Schema> schemas = document.getComponents().getSchemas();
        for (Class<?> questions : List.of(FigureQuestion.class, NumberQuestion.class)) {
            Schema<?> all = schemas.get(questions.getSimpleName());
            if (all == null) {
                continue;
            }
            all.setProperties(null);
            all.setRequired(null);
            for (JsonSubTypes.Type type :
                    questions.getAnnotation(JsonSubTypes.class).value()) {
                String name = type.value().getSimpleName();
                Schema<?> one = require(schemas, name);
                Schema<?> own = one.getAllOf().get(1);
                List<String> required = new ArrayList<>(one.getRequired() == null ? List.of() : one.getRequired());
                required.add(OF);
                own.addProperty(OF, new StringSchema().addEnumItem(type.name()));
                own.setRequired(required);
                schemas.put(name, own);
                all.getDiscriminator().mapping(type.name(), "#/components/schemas/" + name);
            }
        }
    }
}
