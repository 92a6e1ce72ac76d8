package yarrowmark.server.support;

import java.lang.annotation.ElementType;
import java.lang.annotation.Inherited;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.context.annotation.Import;
import org.springframework.test.context.ContextConfiguration;
import yarrowmark.server.YarrowmarkServer;

/**
 * Runs the whole server on a free port, with a real MariaDB and a clock that tests can move. Test classes share one
 * server and its records; a class that needs an empty shelf asks for a new one with DirtiesContext.
 */
@Target(ElementType.TYPE)
@Retention(RetentionPolicy.RUNTIME)
@Inherited
@SpringBootTest(classes = YarrowmarkServer.class, webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
@ContextConfiguration(initializers = FreshSchema.class)
@Import({MovableClock.Wiring.class, AskedStatements.Wiring.class, QuickPasswords.class})
public @interface ServerTest {}
