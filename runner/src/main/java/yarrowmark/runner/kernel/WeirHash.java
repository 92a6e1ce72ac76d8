package yarrowmark.runner.kernel;

/** Integer work: an add-rotate-xor hash over a block of 16 KiB, which fits the first cache level. */
final class WeirHash implements Kernel {
    private static final int WORDS = 4096;
    /** So that one round hashes 1 MiB. */
    private static final int PASSES = 64;

    private final int[] block = new int[WORDS];

    @Override
    public void prepare(int seed) {
        int x = seed;
        for (int i = 0; i < WORDS; i++) {
            x = Bits.next(x);
            block[i] = x;
        }
    }

    @Override
    public int operate() {
        int[] words = block;
        int a = 0x79617272;
        int b = 0x6f776d61;
        int c = 0x726b7765;
        int d = 0x69722121;
        for (int pass = 0; pass < PASSES; pass++) {
            for (int i = 0; i < WORDS; i += 4) {
                a = Integer.rotateLeft(a + words[i], 7) ^ d;
                b = Integer.rotateLeft(b + (words[i + 1] ^ a), 11) + c;
                c = Integer.rotateLeft(c ^ words[i + 2] + b, 17) + a;
                d = Integer.rotateLeft(d + (words[i + 3] ^ c), 23) ^ b;
            }
            a += pass;
        }
        return a ^ b ^ c ^ d;
    }
}
