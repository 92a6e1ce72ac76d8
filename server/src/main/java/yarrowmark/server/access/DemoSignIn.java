package yarrowmark.server.access;

/** The demo's sign-in. It is public, which is why the demo never listens beyond loopback. */
public final class DemoSignIn {
    public static final String NAME = "wren";
    public static final String PASSWORD = "saltmarsh-demo";

    private DemoSignIn() {}
}
