package yarrowmark.server.access;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** What concerns safety, in the server's log under one name; never a password, a key or a link. */
@Component
class SecurityLog {
    private static final Logger LOG = LoggerFactory.getLogger("yarrowmark.security");

    /** @param who a name that somebody typed, so it may hold anything. @param address where from; empty for the machine itself */
    void note(String what, String who, String address) {
        // A typed name must not be able to write lines of its own.
        LOG.info("{}: {}{}", what, plain(who), address.isEmpty() ? "" : " from " + plain(address));
    }

    private static String plain(String text) {
        return text.codePoints()
                .limit(80)
                .map(c -> Character.isISOControl(c) || Character.getType(c) == Character.LINE_SEPARATOR ? '?' : c)
                .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append)
                .toString();
    }
}
