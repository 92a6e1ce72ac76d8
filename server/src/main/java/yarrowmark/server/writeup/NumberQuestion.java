package yarrowmark.server.writeup;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import org.jspecify.annotations.Nullable;

/** What a number in a text stands for. Configurations and metrics are named by their ids. */
@Schema(
        oneOf = {
            NumberQuestion.ValueOf.class,
            NumberQuestion.RatioOf.class,
            NumberQuestion.OverallOf.class,
            NumberQuestion.FactOf.class
        })
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "of")
@JsonSubTypes({
    @JsonSubTypes.Type(value = NumberQuestion.ValueOf.class, name = "value"),
    @JsonSubTypes.Type(value = NumberQuestion.RatioOf.class, name = "ratio"),
    @JsonSubTypes.Type(value = NumberQuestion.OverallOf.class, name = "overall"),
    @JsonSubTypes.Type(value = NumberQuestion.FactOf.class, name = "fact")
})
sealed interface NumberQuestion {
    record ValueOf(@Min(1) long configuration, @Min(1) long metric) implements NumberQuestion {}

    record RatioOf(@Min(1) long configuration, @Min(1) long base, @Min(1) long metric, @Nullable @Valid ComparedBy by)
            implements NumberQuestion {}

    record OverallOf(@Min(1) long configuration, @Min(1) long base, @Nullable @Valid ComparedBy by)
            implements NumberQuestion {}

    record FactOf(@Min(1) long configuration, @NotBlank @Size(max = 80) String key) implements NumberQuestion {}
}
