package yarrowmark.server.access;

import org.springframework.security.core.userdetails.User;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.Settings;

/** The people of this shelf, and the name of their lab. */
@Service
public class People implements UserDetailsService {
    private static final String LAB = "lab.name";

    private final PersonRepository people;
    private final PasswordEncoder encoder;
    private final Settings settings;

    People(PersonRepository people, PasswordEncoder encoder, Settings settings) {
        this.people = people;
        this.encoder = encoder;
        this.settings = settings;
    }

    @Transactional(readOnly = true)
    public boolean hasOwner() {
        return people.count() > 0;
    }

    public String labName() {
        return settings.get(LAB).orElse("Your lab");
    }

    /**
     * Makes the first person. Of two first visitors one becomes the owner: the database holds one place for it, and
     * whoever finds it taken looks again.
     *
     * @throws Problem when there is an owner already
     */
    @Transactional
    public void makeOwner(String name, String password, String lab) {
        if (hasOwner()) {
            throw Problem.conflict(
                    "owner-exists", "This shelf has an owner already. Sign in, or ask the owner for an account.");
        }
        people.saveAndFlush(new Person(name.strip(), Role.OWNER, encoder.encode(password)));
        settings.put(LAB, lab.strip());
    }

    @Override
    @Transactional(readOnly = true)
    public UserDetails loadUserByUsername(String name) {
        Person person = people.findByName(name).orElseThrow(() -> new UsernameNotFoundException("no such person"));
        return User.withUsername(person.name())
                .password(person.passwordHash())
                .roles(person.role().name())
                .build();
    }
}
