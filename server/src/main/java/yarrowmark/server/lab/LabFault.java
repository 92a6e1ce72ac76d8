package yarrowmark.server.lab;

/** What is wrong with a package, or with the place it is to go to, in words for whoever asked. */
final class LabFault extends RuntimeException {
    private static final long serialVersionUID = 1;

    LabFault(String message) {
        super(message);
    }
}
