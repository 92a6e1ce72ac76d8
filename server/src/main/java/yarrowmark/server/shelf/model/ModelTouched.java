package yarrowmark.server.shelf.model;

import yarrowmark.server.platform.change.RecordsChanged;

/** Something of a model, its units or their configurations changed, so that it may be found by other words now. */
public record ModelTouched(long modelId) implements RecordsChanged {}
