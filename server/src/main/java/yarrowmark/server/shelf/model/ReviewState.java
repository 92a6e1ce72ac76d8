package yarrowmark.server.shelf.model;

/** How far the review of a model is; a model without one was never meant to be reviewed, or nobody said. */
public enum ReviewState {
    WAITING,
    IN_REVIEW,
    REVIEWED
}
