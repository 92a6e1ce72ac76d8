package yarrowmark.server.catalog;

import jakarta.persistence.AttributeConverter;
import jakarta.persistence.Converter;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.json.JsonMapper;

/** A timed command as the records keep it. */
@Converter
class TimedCommandText implements AttributeConverter<TimedCommand, String> {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    @Override
    public @Nullable String convertToDatabaseColumn(@Nullable TimedCommand command) {
        return command == null ? null : JSON.writeValueAsString(command);
    }

    @Override
    public @Nullable TimedCommand convertToEntityAttribute(@Nullable String text) {
        return text == null ? null : JSON.readValue(text, TimedCommand.class);
    }
}
