package yarrowmark.server.access;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.Authentication;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.platform.PlainLine;
import yarrowmark.server.platform.http.AccessEnded;

/** The people of the lab, and what each may change of their own. */
@RestController
@RequestMapping("/api/people")
class PeopleController {
    /** @param here whether the question comes from there */
    record PlaceRow(long id, String address, String agent, Instant startedAt, Instant lastAt, boolean here) {}

    record Me(long id, String name, Role role, List<PlaceRow> places, List<ApiKeys.KeyRow> keys) {}

    record NewRole(@NotNull Role role) {}

    record OwnName(@NotBlank @PlainLine @Size(max = 80) String name, @NotBlank @Size(max = 400) String password) {}

    record OwnPassword(@NotBlank @Size(max = 400) String old, @NotBlank @Size(max = 400) String password) {}

    record NewKey(
            @NotBlank @PlainLine @Size(max = 80) String name,
            @NotNull ApiKey.Scope scope,
            @Min(1) @Max(730) int days) {}

    private final People people;
    private final SignedPlaces places;
    private final Invitations invitations;
    private final ApiKeys keys;
    private final SecurityLog security;

    PeopleController(People people, SignedPlaces places, Invitations invitations, ApiKeys keys, SecurityLog security) {
        this.people = people;
        this.places = places;
        this.invitations = invitations;
        this.keys = keys;
        this.security = security;
    }

    /** Everybody; when they were here last is told to owners. */
    @GetMapping
    List<People.PersonRow> all(Authentication who) {
        boolean owner = who.getAuthorities().stream().anyMatch(a -> ("ROLE_" + Role.OWNER).equals(a.getAuthority()));
        return people.all(owner);
    }

    @GetMapping("/invitations")
    List<Invitations.OpenOne> invitations() {
        return invitations.open();
    }

    /** The link that this makes works once. */
    @PostMapping("/invitations")
    Invitations.Made invite(@Valid @RequestBody NewRole body, Principal who) {
        return invitations.toJoin(body.role(), who.getName());
    }

    @DeleteMapping("/invitations/{id}")
    void close(@PathVariable long id, Principal who) {
        invitations.close(id, who.getName());
    }

    /** A link with which somebody chooses a new password. */
    @PostMapping("/{id}/reset")
    Invitations.Made reset(@PathVariable long id, Principal who) {
        return invitations.toReset(id, who.getName());
    }

    @PutMapping("/{id}/role")
    List<People.PersonRow> role(@PathVariable long id, @Valid @RequestBody NewRole body, Principal who) {
        people.become(id, body.role(), who.getName());
        return people.all(true);
    }

    @DeleteMapping("/{id}")
    void remove(@PathVariable long id, Principal who) {
        people.remove(id, who.getName());
    }

    /** Everybody's keys. */
    @GetMapping("/keys")
    List<ApiKeys.KeyRow> keys() {
        return keys.all(null);
    }

    @DeleteMapping("/keys/{id}")
    void endAnyKey(@PathVariable long id, Principal who) {
        keys.end(id, null, who.getName());
    }

    @GetMapping("/me")
    Me me(Principal who, HttpServletRequest request) {
        Person person = people.named(who.getName());
        Long here = place(request);
        return new Me(
                person.id(),
                person.name(),
                person.role(),
                places.of(person.id()).stream()
                        .map(p -> new PlaceRow(
                                p.id(),
                                p.address(),
                                p.agent(),
                                p.startedAt(),
                                p.lastAt(),
                                here != null && p.id() == here))
                        .toList(),
                keys.all(person.id()));
    }

    @PutMapping("/me/name")
    Me rename(@Valid @RequestBody OwnName body, Principal who, HttpServletRequest request) {
        Person person = people.named(who.getName());
        people.confirm(person.id(), body.password());
        people.rename(person.id(), body.name());
        return me(() -> body.name().strip(), request);
    }

    /** Every other place is signed out. */
    @PutMapping("/me/password")
    Me password(@Valid @RequestBody OwnPassword body, Principal who, HttpServletRequest request) {
        Person person = people.named(who.getName());
        people.confirm(person.id(), body.old());
        people.choosePassword(person.id(), body.password(), place(request));
        return me(who, request);
    }

    @DeleteMapping("/me/places/{id}")
    void endPlace(@PathVariable long id, Principal who) {
        places.end(people.named(who.getName()).id(), id);
    }

    /** Also here. */
    @PostMapping("/me/sign-out-everywhere")
    void endAllPlaces(Principal who) {
        Person person = people.named(who.getName());
        int ended = places.endAll(person.id(), null);
        security.note("signed out everywhere, " + ended + " places", person.name(), "");
    }

    @DeleteMapping("/me")
    void leave(Principal who) {
        people.remove(people.named(who.getName()).id(), who.getName());
    }

    @PostMapping("/me/keys")
    ApiKeys.MadeKey makeKey(@Valid @RequestBody NewKey body, Principal who) {
        return keys.make(people.named(who.getName()).id(), body.name(), body.scope(), body.days());
    }

    @DeleteMapping("/me/keys/{id}")
    void endKey(@PathVariable long id, Principal who) {
        keys.end(id, people.named(who.getName()).id(), who.getName());
    }

    private static @Nullable Long place(HttpServletRequest request) {
        return (Long) request.getAttribute(AccessEnded.PLACE);
    }
}
