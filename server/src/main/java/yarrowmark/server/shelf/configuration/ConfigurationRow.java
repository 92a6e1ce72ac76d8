package yarrowmark.server.shelf.configuration;

import yarrowmark.server.shelf.model.DeviceClass;
import yarrowmark.server.shelf.model.Model;

/** A configuration by its names. */
public record ConfigurationRow(
        long id,
        long modelId,
        String maker,
        String model,
        DeviceClass deviceClass,
        String unit,
        String name,
        boolean retired) {
    public static ConfigurationRow of(Configuration c) {
        Model m = c.unit().model();
        return new ConfigurationRow(
                c.id(),
                m.id(),
                m.maker().name(),
                m.name(),
                m.deviceClass(),
                c.unit().label(),
                c.name(),
                c.isRetired());
    }
}
