package yarrowmark.server.writeup;

/** Kinds of pieces, each with what is in it. */
public enum PieceKind {
    HEADING(PieceBody.Heading.class),
    TEXT(PieceBody.Text.class),
    FIGURE(PieceBody.Figure.class),
    TABLE(PieceBody.Table.class),
    FACTS(PieceBody.Facts.class),
    PHOTO(PieceBody.Photo.class),
    POINTS(PieceBody.Points.class),
    VERDICT(PieceBody.Verdict.class),
    METHOD(PieceBody.Method.class);

    final Class<? extends PieceBody> body;

    PieceKind(Class<? extends PieceBody> body) {
        this.body = body;
    }
}
