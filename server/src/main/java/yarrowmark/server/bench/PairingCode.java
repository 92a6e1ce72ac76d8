package yarrowmark.server.bench;

import java.security.SecureRandom;
import java.util.List;
import java.util.Locale;

/**
 * Codes that are easily read aloud and typed: a word, two digits, a word. 0 and 1 are left out beside O and I.
 * 48 × 64 × 48 codes, valid for minutes, guessed at most ten times a minute.
 */
final class PairingCode {
    private static final List<String> FIRST = List.of(
            "AMBER", "ASH", "BIRCH", "BLUE", "BOLD", "BRIGHT", "BROWN", "CALM", "CLEAR", "CORAL", "CRISP", "DAWN",
            "DUSK", "EARLY", "FAIR", "FERN", "GOLD", "GREEN", "GREY", "HAZEL", "IVORY", "JADE", "KEEN", "LATE", "LIME",
            "MILD", "MINT", "MOSS", "NOBLE", "OAK", "OLIVE", "PALE", "PINE", "PLAIN", "PLUM", "PROUD", "QUICK", "RED",
            "ROSE", "RUST", "SAGE", "SALT", "SLATE", "SOFT", "STILL", "TEAL", "WARM", "WILD");
    private static final List<String> LAST = List.of(
            "BANK", "BAY", "BEACH", "BECK", "BOG", "BRAE", "BRIDGE", "BROOK", "CAVE", "CLIFF", "COAST", "COVE", "CREEK",
            "CROFT", "DALE", "DELL", "DUNE", "FELL", "FEN", "FIELD", "FORD", "GLEN", "GROVE", "HEATH", "HEDGE", "HILL",
            "ISLE", "LAKE", "LANE", "LEA", "MARSH", "MEAD", "MERE", "MILL", "MOOR", "PATH", "POND", "POOL", "REED",
            "RIDGE", "SHORE", "SPRING", "STONE", "TARN", "TOR", "VALE", "WEIR", "WOOD");
    private static final String DIGITS = "23456789";
    private static final SecureRandom RANDOM = new SecureRandom();

    private PairingCode() {}

    static String next() {
        return FIRST.get(RANDOM.nextInt(FIRST.size())) + "-" + DIGITS.charAt(RANDOM.nextInt(DIGITS.length()))
                + DIGITS.charAt(RANDOM.nextInt(DIGITS.length())) + "-" + LAST.get(RANDOM.nextInt(LAST.size()));
    }

    /** "teal 42 fen" and "teal42fen" are as good as "TEAL-42-FEN". */
    static String normalised(String typed) {
        return typed.toUpperCase(Locale.ROOT)
                .replaceAll("[^A-Z0-9]", "")
                .replaceAll("^([A-Z]+)([0-9]+)([A-Z]+)$", "$1-$2-$3");
    }
}
