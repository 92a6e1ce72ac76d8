package yarrowmark.server.writeup;

/** Kinds of pieces; {@link PieceShape} knows what is in each. */
public enum PieceKind {
    HEADING,
    TEXT,
    FIGURE,
    TABLE,
    FACTS,
    PHOTO,
    POINTS,
    VERDICT,
    METHOD
}
