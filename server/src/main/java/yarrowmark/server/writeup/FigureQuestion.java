package yarrowmark.server.writeup;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.shelf.model.DeviceClass;
import yarrowmark.server.standing.StandingsAsk;

/** What a figure shows, or a table. Configurations, metrics and models are named by their ids. */
@Schema(
        oneOf = {
            FigureQuestion.Bars.class,
            FigureQuestion.Curves.class,
            FigureQuestion.Frames.class,
            FigureQuestion.Factors.class,
            FigureQuestion.Ratios.class,
            FigureQuestion.Value.class,
            FigureQuestion.Card.class,
            FigureQuestion.Charts.class,
            FigureQuestion.Trend.class,
            FigureQuestion.Standing.class
        })
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "of")
@JsonSubTypes({
    @JsonSubTypes.Type(value = FigureQuestion.Bars.class, name = "bars"),
    @JsonSubTypes.Type(value = FigureQuestion.Curves.class, name = "curves"),
    @JsonSubTypes.Type(value = FigureQuestion.Frames.class, name = "frames"),
    @JsonSubTypes.Type(value = FigureQuestion.Factors.class, name = "factors"),
    @JsonSubTypes.Type(value = FigureQuestion.Ratios.class, name = "ratios"),
    @JsonSubTypes.Type(value = FigureQuestion.Value.class, name = "value"),
    @JsonSubTypes.Type(value = FigureQuestion.Card.class, name = "card"),
    @JsonSubTypes.Type(value = FigureQuestion.Charts.class, name = "charts"),
    @JsonSubTypes.Type(value = FigureQuestion.Trend.class, name = "trend"),
    @JsonSubTypes.Type(value = FigureQuestion.Standing.class, name = "standing")
})
sealed interface FigureQuestion {
    int MOST = 500;

    enum Order {
        best,
        given
    }

    /** @param beside further metrics, on the same scale */
    record Bars(
            @Min(1) long metric,
            @Nullable @Size(max = MOST) List<@NotNull @Min(1) Long> beside,
            @NotNull @Size(max = MOST) List<@NotNull @Min(1) Long> configurations,
            @Nullable @Min(1) Long highlight,
            @Nullable Order order)
            implements FigureQuestion {}

    record Curves(
            @Min(1) long metric,
            @NotNull @Size(max = MOST) List<@NotNull @Min(1) Long> configurations,
            @Nullable @Min(1) Long highlight)
            implements FigureQuestion {}

    record Frames(
            @Min(1) long metric,
            @NotNull @Size(max = MOST) List<@NotNull @Min(1) Long> configurations,
            @Nullable @Min(1) Long highlight)
            implements FigureQuestion {}

    record Factors(
            @NotNull @Size(max = MOST) List<@NotNull @Min(1) Long> configurations,
            @Nullable @Size(max = 80) String first,
            @Nullable @Size(max = 80) String second,
            @Nullable @Min(1) Long metric)
            implements FigureQuestion {}

    record Ratios(
            @Min(1) long configuration,
            @Min(1) long base,
            @Nullable @Size(max = MOST) List<@NotNull @Min(1) Long> metrics,
            @Nullable @Valid ComparedBy by)
            implements FigureQuestion {}

    /** @param asked what Standings was asked; without it, the class alone says who is ranked */
    record Value(
            @NotBlank @Size(max = 80) String quantity,
            @Nullable DeviceClass deviceClass,
            @Nullable @Min(1) Long highlight,
            @Nullable @Valid StandingsAsk asked)
            implements FigureQuestion {}

    /** @param asked who the others are and over which tests. @param base that it is held against */
    record Card(@Min(1) long configuration, @Nullable @Valid StandingsAsk asked, @Nullable @Min(1) Long base)
            implements FigureQuestion {}

    /** A chart for each test of whoever is asked for. @param asked who, over which tests and sessions */
    record Charts(@NotNull @Valid StandingsAsk asked, @Nullable @Min(1) Long highlight) implements FigureQuestion {}

    /** @param by what Trends was asked besides */
    record Trend(
            @Min(1) long model,
            @Nullable @Min(1) Long unit,
            @Nullable @Size(max = 200) String along,
            @Nullable @Valid TrendBy by)
            implements FigureQuestion {}

    /** @param asked what Standings was asked; without it, the class alone says who is ranked */
    record Standing(
            @Nullable DeviceClass deviceClass, @Nullable @Min(1) Long highlight, @Nullable @Valid StandingsAsk asked)
            implements FigureQuestion {}
}
