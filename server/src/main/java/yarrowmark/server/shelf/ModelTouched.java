package yarrowmark.server.shelf;

import yarrowmark.server.platform.change.RecordsChanged;

/** Something of a model, its units or their configurations changed, so that it may be found by other words now. */
record ModelTouched(long modelId) implements RecordsChanged {}
