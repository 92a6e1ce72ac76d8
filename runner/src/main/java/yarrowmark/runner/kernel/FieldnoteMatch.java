package yarrowmark.runner.kernel;

/** Patterns in text: letters, classes, and items that may be left out or repeated, all alternatives followed at once as bits of a word. */
final class FieldnoteMatch implements Kernel {
    private static final int TEXT_BYTES = 32_768;
    private static final String SYLLABLES =
            "reedsalttarnwillmarshheronotterplovergodwitsedgebankstonemudrilltideebbflow";
    /** A letter, any of [a-f], any letter as a dot; then ? (none or one), * (any number), + (one or more) or nothing. */
    private static final String[] PATTERNS = {
        "re+d[a-m]*l",
        "heron.?o",
        "[m-t]ar[s-n]?h",
        "go+dwi[a-t]",
        "e+b*[a-f]lo",
        "ti?de.*o",
        "plo[r-z]er[m-s]*t",
        "[a-e]+nk"
    };

    private static final int COUNT = PATTERNS.length;

    private final byte[] text = new byte[TEXT_BYTES];
    /** For each pattern 256 words: the items a byte fits. */
    private final int[][] tables = new int[COUNT][256];

    private final int[] items = new int[COUNT];
    private final int[] repeats = new int[COUNT];
    private final int[] optional = new int[COUNT];

    @Override
    public void prepare(int seed) {
        int x = seed;
        int at = 0;
        while (at < TEXT_BYTES) {
            x = Bits.next(x);
            int from = Integer.remainderUnsigned(x, SYLLABLES.length() - 6);
            int length = 2 + (x >>> 9) % 5;
            for (int i = 0; i < length && at < TEXT_BYTES; i++) {
                text[at++] = (byte) SYLLABLES.charAt(from + i);
            }
            if ((x >>> 20 & 3) == 0 && at < TEXT_BYTES) {
                text[at++] = ' ';
            }
        }
        for (int p = 0; p < COUNT; p++) {
            read(p, PATTERNS[p]);
        }
    }

    private void read(int p, String pattern) {
        int item = 0;
        int i = 0;
        while (i < pattern.length()) {
            char low = pattern.charAt(i);
            char high = low;
            if (low == '.') {
                low = 'a';
                high = 'z';
            } else if (low == '[') {
                low = pattern.charAt(i + 1);
                high = pattern.charAt(i + 3);
                i += 4;
            }
            i++;
            // A class may be written from either end.
            for (int c = Math.min(low, high); c <= Math.max(low, high); c++) {
                tables[p][c] |= 1 << item;
            }
            if (i < pattern.length()) {
                char sign = pattern.charAt(i);
                if (sign == '*' || sign == '+') {
                    repeats[p] |= 1 << item;
                }
                if (sign == '*' || sign == '?') {
                    optional[p] |= 1 << item;
                }
                if (sign == '*' || sign == '+' || sign == '?') {
                    i++;
                }
            }
            item++;
        }
        items[p] = item;
    }

    /** Also the items behind those that may be left out. */
    private static int reach(int active, int mayBeLeftOut) {
        int all = active;
        int more = all | (all & mayBeLeftOut) << 1;
        while (more != all) {
            all = more;
            more = all | (all & mayBeLeftOut) << 1;
        }
        return all;
    }

    @Override
    public int operate() {
        int h = Bits.HASH;
        for (int p = 0; p < COUNT; p++) {
            int[] table = tables[p];
            int repeated = repeats[p];
            int leftOut = optional[p];
            int found = 1 << items[p];
            int first = reach(1, leftOut);
            int active = first;
            int matches = 0;
            for (int i = 0; i < TEXT_BYTES; i++) {
                int fits = active & table[text[i] & 255];
                active = reach(fits << 1 | fits & repeated, leftOut) | first;
                if ((active & found) != 0) {
                    matches++;
                    h = (h ^ i) * Bits.PRIME;
                }
            }
            h = (h ^ matches) * Bits.PRIME;
        }
        return h;
    }
}
