package yarrowmark.core.setup;

/** Groups of facts, in the order they are shown. */
public enum FactGroup {
    PROCESSOR("Processor"),
    MEMORY("Memory"),
    GRAPHICS("Graphics"),
    STORAGE("Storage"),
    BOARD("Board and firmware"),
    SYSTEM("Operating system"),
    DRIVERS("Drivers"),
    BROWSER("Browser"),
    POWER("Power"),
    DISPLAY("Display"),
    COOLING("Cooling"),
    ROOM("Room"),
    OTHER("Other");

    private final String label;

    FactGroup(String label) {
        this.label = label;
    }

    public String label() {
        return label;
    }
}
