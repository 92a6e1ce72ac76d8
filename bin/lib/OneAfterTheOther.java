import java.util.List;

/** Runs several programs in one Java, one after the other: bin/bench --smallest only wants to see that each works. */
class OneAfterTheOther {
    public static void main(String[] names) throws Exception {
        for (String name : List.of(names)) {
            Class.forName(name)
                    .getMethod("main", String[].class)
                    .invoke(null, (Object) new String[0]);
        }
    }
}
