package yarrowmark.server;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.scheduling.annotation.EnableScheduling;
import yarrowmark.server.lab.LabCommand;
import yarrowmark.server.site.SiteCommand;

/** Starts the server, writes or reads a whole lab, or makes a folder of the public pages. What it needs to know comes from the environment; see bin/start, bin/export and bin/site. */
@SpringBootApplication
@EnableScheduling
public class YarrowmarkServer {
    public static void main(String[] args) {
        if (LabCommand.isAskedFor(args)) {
            System.exit(LabCommand.run(System.getenv(), YarrowmarkServer.class, System.err, args));
        }
        if (SiteCommand.isAskedFor(args)) {
            System.exit(SiteCommand.run(System.out, args));
        }
        SpringApplication.run(YarrowmarkServer.class, args);
    }
}
