package yarrowmark.runner.kernel;

/** Sorting of records: a quicksort that moves whole records, as a table that is sorted by a column does. */
final class SpecimenSort implements Kernel {
    private static final int RECORDS = 16_384;
    /** Runs this short are sorted by insertion. */
    private static final int SHORT = 12;

    /** Two words a record: key above and number below, which decides between equal keys; and what is carried along. */
    private final long[] source = new long[2 * RECORDS];

    private final long[] sorted = new long[2 * RECORDS];

    @Override
    public void prepare(int seed) {
        int x = seed;
        for (int i = 0; i < RECORDS; i++) {
            x = Bits.next(x);
            source[2 * i] = (long) Integer.remainderUnsigned(x, 40_009) << 32 | i;
            source[2 * i + 1] = (x & 0xffffffffL) * 0x9e3779b97f4a7c15L;
        }
    }

    private void swap(int i, int j) {
        long a = sorted[2 * i];
        long b = sorted[2 * i + 1];
        sorted[2 * i] = sorted[2 * j];
        sorted[2 * i + 1] = sorted[2 * j + 1];
        sorted[2 * j] = a;
        sorted[2 * j + 1] = b;
    }

    private void insertion(int from, int to) {
        for (int i = from + 1; i <= to; i++) {
            long wanted = sorted[2 * i];
            long carried = sorted[2 * i + 1];
            int j = i - 1;
            while (j >= from && sorted[2 * j] > wanted) {
                sorted[2 * j + 2] = sorted[2 * j];
                sorted[2 * j + 3] = sorted[2 * j + 1];
                j--;
            }
            sorted[2 * j + 2] = wanted;
            sorted[2 * j + 3] = carried;
        }
    }

    private void sort(int first, int last) {
        int from = first;
        int to = last;
        while (to - from >= SHORT) {
            int middle = from + to >>> 1;
            if (sorted[2 * middle] < sorted[2 * from]) {
                swap(middle, from);
            }
            if (sorted[2 * to] < sorted[2 * from]) {
                swap(to, from);
            }
            if (sorted[2 * to] < sorted[2 * middle]) {
                swap(to, middle);
            }
            long pivot = sorted[2 * middle];
            int i = from;
            int j = to;
            while (i <= j) {
                while (sorted[2 * i] < pivot) {
                    i++;
                }
                while (sorted[2 * j] > pivot) {
                    j--;
                }
                if (i <= j) {
                    swap(i++, j--);
                }
            }
            // The shorter side by a call, the longer one by going on: the depth stays small whatever the order was.
            if (j - from < to - i) {
                sort(from, j);
                from = i;
            } else {
                sort(i, to);
                to = j;
            }
        }
        insertion(from, to);
    }

    @Override
    public int operate() {
        System.arraycopy(source, 0, sorted, 0, sorted.length);
        sort(0, RECORDS - 1);
        int h = Bits.HASH;
        for (int i = 0; i < RECORDS; i++) {
            long rank = sorted[2 * i];
            h = (h ^ (int) (rank >>> 32) ^ Integer.rotateLeft((int) rank, 16) ^ (int) (sorted[2 * i + 1] >>> 32))
                    * Bits.PRIME;
        }
        return h;
    }
}
