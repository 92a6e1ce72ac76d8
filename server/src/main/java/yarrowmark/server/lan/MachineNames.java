package yarrowmark.server.lan;

import java.net.Inet4Address;
import java.net.Inet6Address;
import java.net.InetAddress;
import java.net.NetworkInterface;
import java.net.SocketException;
import java.net.UnknownHostException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * How other devices on the network can call this machine.
 *
 * @param addresses the likeliest one first: those of home and office networks, then other IPv4 ones, then IPv6
 */
record MachineNames(String name, List<InetAddress> addresses) {
    static MachineNames now() {
        List<InetAddress> found = new ArrayList<>();
        try {
            for (NetworkInterface network : NetworkInterface.networkInterfaces().toList()) {
                if (network.isUp() && !network.isLoopback()) {
                    network.inetAddresses()
                            .filter(a -> !a.isLinkLocalAddress() && !a.isMulticastAddress())
                            .forEach(found::add);
                }
            }
        } catch (SocketException e) {
            throw new IllegalStateException("this machine's addresses cannot be found out", e);
        }
        found.sort(Comparator.comparingInt(
                        (InetAddress a) -> a instanceof Inet4Address ? a.isSiteLocalAddress() ? 0 : 1 : 2)
                .thenComparing(InetAddress::getHostAddress));
        return new MachineNames(ownName(), List.copyOf(found));
    }

    private static String ownName() {
        try {
            String name = InetAddress.getLocalHost().getHostName();
            return name.matches("[A-Za-z0-9]([A-Za-z0-9.-]{0,251}[A-Za-z0-9])?") ? name : "localhost";
        } catch (UnknownHostException e) {
            return "localhost";
        }
    }

    /** As it stands in an address of the web. */
    static String plain(InetAddress address) {
        String text = address.getHostAddress().replaceAll("%.*$", "");
        return address instanceof Inet6Address ? "[" + text + "]" : text;
    }
}
