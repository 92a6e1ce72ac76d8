package yarrowmark.server.access;

import java.net.InetAddress;
import java.net.UnknownHostException;
import org.springframework.beans.factory.InitializingBean;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;

/** Refuses to start a demo, whose sign-in everybody knows, on an address that others can reach. */
@Component
@ConditionalOnProperty("yarrowmark.demo")
class DemoStaysHome implements InitializingBean {
    private final String address;

    DemoStaysHome(@Value("${server.address:}") String address) {
        this.address = address;
    }

    @Override
    public void afterPropertiesSet() throws UnknownHostException {
        if (address.isEmpty() || !InetAddress.getByName(address).isLoopbackAddress()) {
            throw new IllegalStateException("The demo has a known sign-in and listens on loopback only, not on \"" + address
                + "\". Use bin/start for a shelf that others can reach.");
        }
    }
}
