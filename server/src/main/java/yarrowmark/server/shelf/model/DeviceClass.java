package yarrowmark.server.shelf.model;

/** What kind of thing a model is. */
public enum DeviceClass {
    DESKTOP,
    MINI,
    LAPTOP,
    TABLET,
    PHONE,
    BOARD
}
