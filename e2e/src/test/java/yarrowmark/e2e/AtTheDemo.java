package yarrowmark.e2e;

import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.TestInstance;

/** A reviewer who has signed into a demo of the class's own. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
abstract class AtTheDemo {
    Program program;
    Browser browser;

    @BeforeAll
    void startDemo() {
        program = Program.start("demo", getClass().getSimpleName());
        browser = new Browser();
        browser.signIntoDemo(program.address());
    }

    @AfterAll
    void stopDemo() {
        if (browser != null) {
            browser.close();
        }
        if (program != null) {
            program.close();
        }
    }
}
