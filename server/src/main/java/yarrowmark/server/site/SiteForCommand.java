package yarrowmark.server.site;

import java.io.IOException;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

/** The public side as one file for bin/site, which has no sign-in but a pass. */
@Controller
class SiteForCommand {
    private final SiteController site;
    private final SitePass pass;

    SiteForCommand(SiteController site, SitePass pass) {
        this.site = site;
        this.pass = pass;
    }

    @GetMapping(SitePage.FRONT + "/site-{token:[A-Za-z0-9_-]{30,60}}.zip")
    ResponseEntity<StreamingResponseBody> zip(@PathVariable String token) throws IOException {
        return pass.isTaken(token)
                ? site.zip()
                : ResponseEntity.status(HttpStatus.NOT_FOUND).build();
    }
}
