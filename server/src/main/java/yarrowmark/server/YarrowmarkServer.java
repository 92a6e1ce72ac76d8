package yarrowmark.server;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.scheduling.annotation.EnableScheduling;

/** Starts the server. Everything it needs to know comes from the environment; see bin/start. */
@SpringBootApplication
@EnableScheduling
public class YarrowmarkServer {
    public static void main(String[] args) {
        SpringApplication.run(YarrowmarkServer.class, args);
    }
}
