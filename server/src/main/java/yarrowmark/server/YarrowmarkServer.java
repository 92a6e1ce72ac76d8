package yarrowmark.server;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.scheduling.annotation.EnableScheduling;
import yarrowmark.server.lab.LabCommand;

/** Starts the server, or writes or reads a whole lab. What it needs to know comes from the environment; see bin/start and bin/export. */
@SpringBootApplication
@EnableScheduling
public class YarrowmarkServer {
    public static void main(String[] args) {
        if (LabCommand.isAskedFor(args)) {
            System.exit(LabCommand.run(System.getenv(), YarrowmarkServer.class, System.err, args));
        }
        SpringApplication.run(YarrowmarkServer.class, args);
    }
}
