package yarrowmark.server.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.InputStream;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.platform.records.Locks;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.MovableClock;
import yarrowmark.server.support.ServerTest;

/** Accounts: invited, renamed, demoted, signed out elsewhere, reset and removed. */
@ServerTest
class PeopleTest {
    private static final AtomicInteger NUMBER = new AtomicInteger();
    private static final String PASSWORD = "heron kettle gravel";

    @LocalServerPort
    private int port;

    @Autowired
    private JdbcTemplate jdbc;

    @Autowired
    private MovableClock clock;

    @Autowired
    private SignedPlaceRepository signedPlaces;

    @Autowired
    private PersonRepository persons;

    @Autowired
    private Locks locks;

    private Client owner;

    @BeforeEach
    void owner() {
        clock.letPass(Duration.ofMinutes(2));
        owner = Client.owner(port);
    }

    private String invitation(String role) {
        Client.Answer made = owner.post("/api/people/invitations", Map.of("role", role));
        assertThat(made.status()).as(made.detail()).isEqualTo(200);
        return made.body().path("token").asString();
    }

    private Client.Answer welcome(Client client, String token, String name, String password) {
        client.get("/api/access");
        return client.post("/api/access/invitation", Map.of("token", token, "name", name, "password", password));
    }

    /** Somebody new, signed in. */
    private Client joined(String role, String name) {
        Client client = new Client(port);
        Client.Answer in = welcome(client, invitation(role), name, PASSWORD);
        assertThat(in.status()).as(in.detail()).isEqualTo(200);
        assertThat(in.body().path("role").asString()).isEqualTo(role);
        return client;
    }

    private static String name(String start) {
        return start + " " + NUMBER.incrementAndGet();
    }

    private Client.Answer signIn(String name, String password) {
        Client client = new Client(port);
        client.get("/api/access");
        return client.post("/api/access/sign-in", Map.of("name", name, "password", password));
    }

    private long id(String name) {
        return jdbc.queryForObject("select id from person where name = ?", Long.class, name);
    }

    @Test
    void anInvitationWorksOnceAlsoForTwoWhoFollowItAtOnce() throws Exception {
        String token = invitation("REVIEWER");
        assertThat(owner.get("/api/people/invitations").body().toString()).doesNotContain(token);
        List<Client> clients =
                IntStream.range(0, 4).mapToObj(i -> new Client(port)).toList();
        ExecutorService pool = Executors.newFixedThreadPool(4);
        try {
            List<Callable<Integer>> all = clients.stream()
                    .map(c -> (Callable<Integer>)
                            () -> welcome(c, token, name("Plover"), PASSWORD).status())
                    .toList();
            List<Integer> answers =
                    pool.invokeAll(all).stream().map(PeopleTest::done).sorted().toList();
            assertThat(answers).containsExactly(200, 410, 410, 410);
        } finally {
            pool.shutdownNow();
        }
        String expired = invitation("READER");
        clock.letPass(Duration.ofDays(8));
        assertThat(welcome(new Client(port), expired, name("Late"), PASSWORD).code())
                .isEqualTo("link-used");
        assertThat(welcome(new Client(port), "nothing", name("Late"), PASSWORD).status())
                .isEqualTo(410);
    }

    private static int done(Future<Integer> answer) {
        try {
            return answer.get();
        } catch (Exception e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void aReaderAsksEveryQuestionAndChangesNothing() {
        Client reader = joined("READER", name("Reader"));
        assertThat(reader.get("/api/standings").status()).isNotEqualTo(403);
        assertThat(reader.post("/api/formulas/read", Map.of("formula", "1 + 1", "suiteVersion", 1))
                        .status())
                .isNotEqualTo(403);
        assertThat(reader.post("/api/models", Map.of("maker", "Pellow", "name", "X", "deviceClass", "LAPTOP"))
                        .status())
                .isEqualTo(403);
        assertThat(reader.post("/api/people/invitations", Map.of("role", "OWNER"))
                        .status())
                .isEqualTo(403);
        assertThat(reader.get("/api/people/keys").status()).isEqualTo(403);
        assertThat(reader.get("/api/people").body().get(0).path("lastAt").isMissingNode())
                .as("when others were here is not for readers")
                .isTrue();
    }

    @Test
    void aRoleCountsFromTheMomentItIsGiven() {
        String name = name("Dunlin");
        Client person = joined("READER", name);
        Map<String, String> model = Map.of("maker", "Pellow", "name", name("Model"), "deviceClass", "LAPTOP");
        assertThat(person.post("/api/models", model).status()).isEqualTo(403);
        assertThat(owner.put("/api/people/" + id(name) + "/role", Map.of("role", "REVIEWER"))
                        .status())
                .isEqualTo(200);
        assertThat(person.post("/api/models", model).status()).isEqualTo(200);
        owner.put("/api/people/" + id(name) + "/role", Map.of("role", "READER"));
        assertThat(person.post("/api/models", model).status()).isEqualTo(403);
    }

    @Test
    void theLastOwnerStaysAndOfTwoWhoRemoveEachOtherOneDoes() throws Exception {
        long first = id(Client.NAME);
        Client.Answer alone = owner.put("/api/people/" + first + "/role", Map.of("role", "READER"));
        assertThat(alone.code()).isEqualTo("last-owner");
        assertThat(owner.delete("/api/people/" + first).code()).isEqualTo("last-owner");
        String name = name("Second owner");
        Client second = joined("OWNER", name);
        long other = id(name);
        Client stillOwner;
        ExecutorService pool = Executors.newFixedThreadPool(2);
        try {
            Future<Integer> one =
                    pool.submit(() -> owner.put("/api/people/" + other + "/role", Map.of("role", "REVIEWER"))
                            .status());
            Future<Integer> two =
                    pool.submit(() -> second.put("/api/people/" + first + "/role", Map.of("role", "REVIEWER"))
                            .status());
            assertThat(List.of(one.get(), two.get())).contains(200).doesNotContain(500);
            stillOwner = one.get() == 200 ? owner : second;
        } finally {
            pool.shutdownNow();
        }
        assertThat(jdbc.queryForObject(
                        "select count(*) from person where role = 'OWNER' and removed_at is null", Integer.class))
                .isOne();
        stillOwner.put("/api/people/" + first + "/role", Map.of("role", "OWNER"));
        owner.put("/api/people/" + other + "/role", Map.of("role", "REVIEWER"));
    }

    @Test
    void whoeverIsRemovedIsOutAtOnceAndTheirNameStaysTheirs() {
        String name = name("Godwit");
        Client person = joined("REVIEWER", name);
        String model = name("Model");
        person.post("/api/models", Map.of("maker", "Pellow", "name", model, "deviceClass", "LAPTOP"));
        assertThat(owner.delete("/api/people/" + id(name)).status()).isEqualTo(200);
        assertThat(person.get("/api/models").status()).isEqualTo(401);
        assertThat(signIn(name, PASSWORD).status()).isEqualTo(401);
        assertThat(jdbc.queryForObject("select count(*) from change_entry where person = ?", Integer.class, name))
                .isPositive();
        assertThat(welcome(new Client(port), invitation("READER"), name, PASSWORD)
                        .code())
                .isEqualTo("name-taken");
    }

    /** The program is killed: what the next one knows is in the records alone. */
    @Test
    void whoeverIsSignedInStaysSoOverAStartOfTheProgram() {
        Client person = joined("READER", name("Wader"));
        String token = person.cookie("yarrowmark-");
        SignedPlaces next = new SignedPlaces(signedPlaces, persons, locks, event -> {}, clock);
        assertThat(next.at(token)).isNull();
        next.remember();
        SignedPlaces.Open there = next.at(token);
        assertThat(there).isNotNull();
        assertThat(there.role()).isEqualTo(Role.READER);
        assertThat(next.at(token + "x")).isNull();
        assertThat(jdbc.queryForObject("select count(*) from signed_place where token_hash = ?", Integer.class, token))
                .as("the token itself is kept nowhere")
                .isZero();
        person.post("/api/access/sign-out", Map.of());
        SignedPlaces after = new SignedPlaces(signedPlaces, persons, locks, event -> {}, clock);
        after.remember();
        assertThat(after.at(token)).as("who signed out stays out").isNull();
    }

    /** Signing in while one is removed: whichever comes first, nobody stays. */
    @Test
    void whoeverSignsInWhileTheyAreRemovedIsOut() throws Exception {
        for (int round = 0; round < 4; round++) {
            String name = name("Whimbrel");
            joined("REVIEWER", name);
            List<Client> clients =
                    IntStream.range(0, 3).mapToObj(i -> new Client(port)).toList();
            clients.forEach(c -> c.get("/api/access"));
            ExecutorService pool = Executors.newFixedThreadPool(4);
            try {
                List<Future<Integer>> all = clients.stream()
                        .map(c -> pool.submit(
                                () -> c.post("/api/access/sign-in", Map.of("name", name, "password", PASSWORD))
                                        .status()))
                        .toList();
                Future<Integer> removed = pool.submit(
                        () -> owner.delete("/api/people/" + id(name)).status());
                assertThat(removed.get()).isEqualTo(200);
                for (Future<Integer> answer : all) {
                    assertThat(answer.get()).isIn(200, 401, 404);
                }
            } finally {
                pool.shutdownNow();
            }
            for (Client c : clients) {
                assertThat(c.get("/api/models").status()).as("round %d", round).isEqualTo(401);
            }
            clock.letPass(Duration.ofMinutes(2));
        }
    }

    /** In the very moment: either the old password still opened the door before, and is shut out again, or it did not. */
    @Test
    void whoSignsInWithTheOldPasswordWhileItIsChangedIsOutAfterwards() throws Exception {
        String now = PASSWORD;
        String name = name("Dunlin");
        Client person = joined("REVIEWER", name);
        for (int round = 0; round < 4; round++) {
            String old = now;
            String next = "marsh lantern " + round + " orchard";
            List<Client> late =
                    IntStream.range(0, 3).mapToObj(i -> new Client(port)).toList();
            late.forEach(c -> c.get("/api/access"));
            ExecutorService pool = Executors.newFixedThreadPool(4);
            try {
                List<Future<Integer>> all = late.stream()
                        .map(c -> pool.submit(() -> c.post("/api/access/sign-in", Map.of("name", name, "password", old))
                                .status()))
                        .toList();
                Future<Integer> changed =
                        pool.submit(() -> person.put("/api/people/me/password", Map.of("old", old, "password", next))
                                .status());
                assertThat(changed.get()).isEqualTo(200);
                for (Future<Integer> answer : all) {
                    assertThat(answer.get()).isIn(200, 401);
                }
            } finally {
                pool.shutdownNow();
            }
            for (Client c : late) {
                assertThat(c.get("/api/models").status()).as("round %d", round).isEqualTo(401);
            }
            assertThat(person.get("/api/models").status()).isEqualTo(200);
            now = next;
            clock.letPass(Duration.ofMinutes(2));
        }
    }

    @Test
    void aNewNameCountsEverywhereAndTheOldOneIsNobodyElses() {
        String before = name("Smew");
        Client person = joined("REVIEWER", before);
        String after = name("Garganey");
        assertThat(person.put("/api/people/me/name", Map.of("name", after, "password", "not it at all"))
                        .code())
                .isEqualTo("wrong-password");
        assertThat(person.put("/api/people/me/name", Map.of("name", Client.NAME, "password", PASSWORD))
                        .code())
                .isEqualTo("name-taken");
        assertThat(person.put("/api/people/me/name", Map.of("name", after, "password", PASSWORD))
                        .body()
                        .path("name")
                        .asString())
                .isEqualTo(after);
        assertThat(person.get("/api/access").body().path("person").asString()).isEqualTo(after);
        assertThat(welcome(new Client(port), invitation("READER"), before, PASSWORD)
                        .code())
                .isEqualTo("name-taken");
        assertThat(person.put("/api/people/me/name", Map.of("name", before, "password", PASSWORD))
                        .status())
                .as("back to one's own former name")
                .isEqualTo(200);
    }

    @Test
    void placesAreListedAndEndedAndANewPasswordEndsTheOthers() {
        String name = name("Knot");
        Client here = joined("REVIEWER", name);
        Client there = new Client(port);
        there.get("/api/access");
        there.post("/api/access/sign-in", Map.of("name", name, "password", PASSWORD));
        JsonNode places = here.get("/api/people/me").body().path("places");
        assertThat(places).hasSize(2);
        long other = places.valueStream()
                .filter(p -> !p.path("here").asBoolean())
                .findFirst()
                .orElseThrow()
                .path("id")
                .asLong();
        assertThat(owner.delete("/api/people/me/places/" + other).status())
                .as("of somebody else")
                .isEqualTo(404);
        assertThat(here.delete("/api/people/me/places/" + other).status()).isEqualTo(200);
        assertThat(there.get("/api/models").status()).isEqualTo(401);
        assertThat(here.get("/api/models").status()).isEqualTo(200);

        there.get("/api/access");
        there.post("/api/access/sign-in", Map.of("name", name, "password", PASSWORD));
        assertThat(here.put("/api/people/me/password", Map.of("old", PASSWORD, "password", "Password2026!"))
                        .code())
                .isEqualTo("weak-password");
        String next = "三つの言葉はそれぞれ別のもの ".repeat(12).strip();
        assertThat(here.put("/api/people/me/password", Map.of("old", PASSWORD, "password", next))
                        .status())
                .isEqualTo(200);
        assertThat(there.get("/api/models").status()).isEqualTo(401);
        assertThat(here.get("/api/models").status()).isEqualTo(200);
        assertThat(signIn(name, next).status()).isEqualTo(200);
        assertThat(signIn(name, next.substring(0, next.length() - 1)).status())
                .as("the end of a long password counts")
                .isEqualTo(401);

        assertThat(here.post("/api/people/me/sign-out-everywhere", Map.of()).status())
                .isEqualTo(200);
        assertThat(here.get("/api/models").status()).isEqualTo(401);
    }

    /** What is watched from a place that is ended ends with it, at once and not with the next request. */
    @Test
    void anOpenFeedEndsWithItsPlace() throws Exception {
        String name = name("Curlew");
        Client watching = joined("READER", name);
        try (InputStream feed = watching.open("/api/bench/events")) {
            assertThat(feed.read()).as("it is open").isNotNegative();
            Client elsewhere = new Client(port);
            elsewhere.get("/api/access");
            elsewhere.post("/api/access/sign-in", Map.of("name", name, "password", PASSWORD));
            ExecutorService pool = Executors.newSingleThreadExecutor();
            try {
                Future<Integer> end = pool.submit(() -> {
                    int last = 0;
                    while (last >= 0) {
                        last = feed.read();
                    }
                    return last;
                });
                assertThat(elsewhere
                                .post("/api/people/me/sign-out-everywhere", Map.of())
                                .status())
                        .isEqualTo(200);
                assertThat(end.get(5, TimeUnit.MINUTES)).isEqualTo(-1);
            } finally {
                pool.shutdownNow();
            }
        }
    }

    @Test
    void whoDidWhatIsFoundByPersonKindAndTime() {
        String name = name("Avocet");
        Client person = joined("REVIEWER", name);
        String model = name("Model");
        person.post("/api/models", Map.of("maker", "Pellow", "name", model, "deviceClass", "LAPTOP"));
        String by = "/api/doings?person=" + name.replace(" ", "%20");
        JsonNode all = owner.get(by).body();
        assertThat(all.path("page").path("total").asInt())
                .as("joined, and made a model")
                .isEqualTo(2);
        assertThat(all.path("people").toString()).contains(name);
        JsonNode one = owner.get(by + "&subject=model").body().path("page");
        assertThat(one.path("total").asInt()).isOne();
        assertThat(one.path("rows").get(0).path("changes").toString()).contains(model);
        assertThat(one.path("rows").get(0).path("name").asString()).isEqualTo("Pellow " + model);
        assertThat(one.path("rows").get(0).path("place").asString()).startsWith("/shelf/models/");
        String at = one.path("rows").get(0).path("at").asString();
        assertThat(owner.get(by + "&since=" + at)
                        .body()
                        .path("page")
                        .path("total")
                        .asInt())
                .as("nothing after it")
                .isZero();
        assertThat(owner.get(by + "&since=2001-01-01T00:00:00Z")
                        .body()
                        .path("page")
                        .path("total")
                        .asInt())
                .isEqualTo(2);
        assertThat(owner.get(by + "&to=2001-01-01")
                        .body()
                        .path("page")
                        .path("total")
                        .asInt())
                .isZero();
        assertThat(owner.get(by + "&from=2001-01-01&size=1").body().path("page").path("rows"))
                .hasSize(1);
        assertThat(owner.get("/api/doings?from=yesterday").status()).isEqualTo(400);
        assertThat(owner.get("/api/doings?size=0").status()).isEqualTo(400);
    }

    @Test
    void aPlaceLastsThirtyDaysAtTheMost() {
        Client person = joined("READER", name("Stint"));
        // Every half day, as somebody does who comes every day.
        for (int i = 0; i < 59; i++) {
            clock.letPass(Duration.ofHours(12));
            assertThat(person.get("/api/models").status()).as("half day %d", i).isEqualTo(200);
        }
        clock.letPass(Duration.ofDays(1));
        assertThat(person.get("/api/models").status()).isEqualTo(401);

        owner = Client.owner(port);
        Client idle = joined("READER", name("Stint"));
        clock.letPass(Duration.ofHours(13));
        assertThat(idle.get("/api/models").status()).as("without use").isEqualTo(401);
    }

    @Test
    void aLostPasswordIsResetByALinkThatWorksOnce() {
        String name = name("Ruff");
        Client person = joined("READER", name);
        String token = owner.post("/api/people/" + id(name) + "/reset", Map.of())
                .body()
                .path("token")
                .asString();
        Client fresh = new Client(port);
        fresh.get("/api/access");
        assertThat(fresh.post("/api/access/invitation/look", Map.of("token", token))
                        .body()
                        .path("name")
                        .asString())
                .isEqualTo(name);
        assertThat(welcome(fresh, token, "", "willow kettle harbour").status()).isEqualTo(200);
        assertThat(person.get("/api/models").status())
                .as("signed out elsewhere")
                .isEqualTo(401);
        assertThat(signIn(name, PASSWORD).status()).isEqualTo(401);
        assertThat(signIn(name, "willow kettle harbour").status()).isEqualTo(200);
        assertThat(welcome(new Client(port), token, "", "another willow kettle").status())
                .isEqualTo(410);
    }

    private String resetLink(String name) {
        return owner.post("/api/people/" + id(name) + "/reset", Map.of())
                .body()
                .path("token")
                .asString();
    }

    @Test
    void aNewerLinkForAPasswordEndsTheOlderAndUsingOneEndsAll() {
        String name = name("Sanderling");
        Client person = joined("READER", name);
        String older = resetLink(name);
        String newer = resetLink(name);
        assertThat(welcome(new Client(port), older, "", "willow kettle harbour").status())
                .isEqualTo(410);
        assertThat(welcome(new Client(port), newer, "", "willow kettle harbour").status())
                .isEqualTo(200);
        assertThat(person.get("/api/models").status()).isEqualTo(401);

        String unused = resetLink(name);
        Client own = new Client(port);
        own.get("/api/access");
        own.post("/api/access/sign-in", Map.of("name", name, "password", "willow kettle harbour"));
        assertThat(own.put("/api/people/me/password", Map.of("old", "willow kettle harbour", "password", PASSWORD))
                        .status())
                .isEqualTo(200);
        assertThat(welcome(new Client(port), unused, "", "willow kettle harbour")
                        .status())
                .as("a password that its person chose ends it too")
                .isEqualTo(410);
    }

    @Test
    void whoGetsANewPasswordByALinkIsAskedAboutTheirKeys() {
        String name = name("Dotterel");
        Client person = joined("REVIEWER", name);
        person.post("/api/people/me/keys", Map.of("name", "script", "scope", "READ", "days", 7));
        String first = resetLink(name);
        Client fresh = new Client(port);
        fresh.get("/api/access");
        assertThat(fresh.post("/api/access/invitation/look", Map.of("token", first))
                        .body()
                        .path("keys")
                        .asInt())
                .isEqualTo(1);
        assertThat(welcome(fresh, first, "", "willow kettle harbour").code()).isEqualTo("keys-too");
        Map<String, Object> keep =
                Map.of("token", first, "name", "", "password", "willow kettle harbour", "endKeys", false);
        assertThat(fresh.post("/api/access/invitation", keep).status()).isEqualTo(200);
        assertThat(fresh.get("/api/people/me").body().path("keys")).hasSize(1);

        String second = resetLink(name);
        Client again = new Client(port);
        again.get("/api/access");
        Map<String, Object> end =
                Map.of("token", second, "name", "", "password", "willow kettle harbour", "endKeys", true);
        assertThat(again.post("/api/access/invitation", end).status()).isEqualTo(200);
        assertThat(again.get("/api/people/me").body().path("keys")).isEmpty();
    }

    @Test
    void aPasswordThatWasKeptInAnOlderWayIsRenewedAtSignIn() {
        String name = name("Pintail");
        joined("READER", name);
        jdbc.update(
                "update person set password_hash = ? where name = ?",
                "{bcrypt}" + new BCryptPasswordEncoder().encode(PASSWORD),
                name);
        assertThat(signIn(name, "wrong kettle").status()).isEqualTo(401);
        assertThat(signIn(name, PASSWORD).status()).isEqualTo(200);
        assertThat(jdbc.queryForObject("select password_hash from person where name = ?", String.class, name))
                .startsWith("{argon2}");
        assertThat(signIn(name, PASSWORD).status()).isEqualTo(200);
    }

    @Test
    void passwordsThatAreTriedFirstAreRefused() {
        String token = invitation("READER");
        for (String weak : List.of(
                "Password123!",
                "P@ssw0rd2026",
                "qwertyuiop",
                "1234567890",
                "aaaaaaaaaaaa",
                "passwordpassword",
                "Iloveyou1234",
                "yarrowmark2026",
                "short",
                "Crake Nine 99")) {
            clock.letPass(Duration.ofMinutes(2));
            assertThat(welcome(new Client(port), token, "Crake Nine", weak).code())
                    .as(weak)
                    .isEqualTo("weak-password");
        }
        assertThat(welcome(new Client(port), token, name("Crake"), "summer heron drawer")
                        .status())
                .as("a common word among others")
                .isEqualTo(200);
    }
}
