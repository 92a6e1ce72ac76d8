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
public class DemoAddressCheck implements InitializingBean {
    private final String address;

    DemoAddressCheck(@Value("${server.address:}") String address) {
        this.address = address;
    }

    @Override
    public void afterPropertiesSet() {
        check(address);
    }

    /** @throws IllegalStateException where the address is not one of loopback */
    public static void check(String address) {
        try {
            if (!address.isEmpty() && InetAddress.getByName(address).isLoopbackAddress()) {
                return;
            }
        } catch (UnknownHostException e) {
            // Not an address of this machine, so not loopback.
        }
        throw new IllegalStateException("The demo has a known sign-in and listens on loopback only, not on \"" + address
                + "\". Use bin/start for a shelf that others can reach.");
    }
}
