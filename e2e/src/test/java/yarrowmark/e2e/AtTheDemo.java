package yarrowmark.e2e;

import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.TestInstance;

/** A reviewer who has signed into a demo that several classes share. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
abstract class AtTheDemo {
    /** What the classes of one demo do to its records does not disturb one another. */
    enum Demo {
        /** Read, but for plans and kept standings. */
        READ,
        /** Models, suites and scores are added and changed. */
        CHANGED,
        /** Written about: its scores stay what they are from one look to the next. */
        WRITTEN_ABOUT
    }

    private final Demo demo;
    Program program;
    Browser browser;

    AtTheDemo(Demo demo) {
        this.demo = demo;
    }

    @BeforeAll
    void startDemo() {
        program = Program.sharedDemo(demo.name().toLowerCase(java.util.Locale.ROOT));
        browser = new Browser();
        browser.signIntoDemo(program.address());
    }

    @AfterAll
    void leaveDemo() {
        if (browser != null) {
            browser.close();
        }
    }
}
