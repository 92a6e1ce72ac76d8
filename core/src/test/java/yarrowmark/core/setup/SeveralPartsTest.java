package yarrowmark.core.setup;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.Map;
import java.util.OptionalInt;
import org.junit.jupiter.api.Test;

class SeveralPartsTest {
    private static final Map<String, String> TWO = Map.of(
            "graphics.renderer", "Sedge Pond 40",
            "graphics.kind", "integrated",
            "graphics.renderer.2", "Fenland Weir 900 M",
            "graphics.memory.2", "8589934592",
            "graphics.renderer.3", "Sedge Tarn",
            "driver.graphics", "31.0",
            "storage.model", "Reed 1");

    @Test
    void theOneThatTestsUsedChangesPlacesWithThePlainOneAndNothingElseMoves() {
        Map<String, String> after = SeveralParts.exchanged(TWO, "graphics", 2);

        assertEquals(
                Map.of(
                        "graphics.renderer", "Fenland Weir 900 M",
                        "graphics.memory", "8589934592",
                        "graphics.renderer.2", "Sedge Pond 40",
                        "graphics.kind.2", "integrated",
                        "graphics.renderer.3", "Sedge Tarn",
                        "driver.graphics", "31.0",
                        "storage.model", "Reed 1"),
                after);
        assertEquals(TWO, SeveralParts.exchanged(after, "graphics", 2), "twice is not at all");
    }

    @Test
    void aBrowsersLongNameMeansThePartWhoseWordsItHas() {
        assertEquals(
                OptionalInt.of(2),
                SeveralParts.meant(
                        TWO, "graphics.renderer", "LAYER (Fenland, Fenland Weir 900 M (0x00001F9D) Drawer11 vs_5_0)"));
        assertEquals(
                OptionalInt.of(1),
                SeveralParts.meant(TWO, "graphics.renderer", "sedge(R) POND 40 Graphics, or similar"));
    }

    @Test
    void nothingIsGuessedWhereNoneFitsOrTwoFitAlikeOrThereIsOnlyOne() {
        assertEquals(OptionalInt.empty(), SeveralParts.meant(TWO, "graphics.renderer", "drawn by software"));
        assertEquals(OptionalInt.empty(), SeveralParts.meant(TWO, "graphics.renderer", "Sedge"));
        assertEquals(
                OptionalInt.empty(),
                SeveralParts.meant(
                        Map.of("graphics.renderer", "Weir 9", "graphics.renderer.2", "weir (9)"),
                        "graphics.renderer",
                        "Weir 9"));
        assertEquals(OptionalInt.empty(), SeveralParts.meant(TWO, "storage.model", "Reed 1"));
        assertEquals(
                OptionalInt.empty(),
                SeveralParts.meant(
                        Map.of("graphics.renderer", "…", "graphics.renderer.2", "–"), "graphics.renderer", "…"));
    }

    /** Of five words three are enough; of six, three are not. The ninth part is looked at, too. */
    @Test
    void moreThanHalfOfThePartsWordsHaveToBeThere() {
        Map<String, String> nine =
                Map.of("graphics.renderer", "Sedge Pond", "graphics.renderer.9", "Fenland Weir 900 M Plus");
        assertEquals(OptionalInt.of(9), SeveralParts.meant(nine, "graphics.renderer", "a Fenland Weir 900"));
        assertEquals(OptionalInt.empty(), SeveralParts.meant(nine, "graphics.renderer", "a Fenland Weir"));
        assertEquals(
                OptionalInt.empty(),
                SeveralParts.meant(Map.of("graphics.renderer", "Sedge Pond"), "graphics.renderer", "Sedge Pond"),
                "there is only one");
    }
}
