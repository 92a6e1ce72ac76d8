package yarrowmark.server.catalog;

/** Groups of tests, in the order they are shown. */
public enum TestGroup {
    PROCESSOR("Processor"),
    MEMORY("Memory"),
    GRAPHICS("Graphics"),
    STORAGE("Storage"),
    BROWSER("Browser"),
    NETWORK("Network"),
    VIDEO("Video"),
    EVERYDAY("Everyday tasks"),
    BODY("Body");

    private final String label;

    TestGroup(String label) {
        this.label = label;
    }

    public String label() {
        return label;
    }
}
