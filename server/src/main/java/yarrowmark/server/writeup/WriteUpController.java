package yarrowmark.server.writeup;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.files.Files;
import yarrowmark.server.platform.Page;
import yarrowmark.server.platform.PlainLine;

@RestController
@RequestMapping("/api/write-ups")
class WriteUpController {
    record AddedPiece(@NotNull PieceKind kind, @NotNull JsonNode body, @Nullable Long after) {
        WriteUps.NewPiece piece() {
            return new WriteUps.NewPiece(kind, body);
        }
    }

    record NewWriteUp(
            @NotBlank @PlainLine @Size(max = 200) String title,
            @NotNull @Size(max = 20) Set<@NotNull Long> models,
            @NotNull @Size(max = 200) List<@Valid @NotNull AddedPiece> pieces,
            @Nullable @PlainLine @Size(max = 60) String kind) {}

    record ChangedWriteUp(
            @NotBlank @PlainLine @Size(max = 200) String title,
            @Nullable @Size(max = 400) String subtitle,
            @NotNull @Size(max = 20) Set<@NotNull Long> models,
            boolean listed) {}

    record ChangedPiece(@NotNull JsonNode body, int revision) {}

    record MovedPiece(@Nullable Long after) {}

    record PublishBody(
            int revision,
            @Nullable @Size(max = 1_000) String changes,
            boolean listed,
            @Nullable @PlainLine @Size(max = 60) String kind,
            @NotNull @Size(max = 200) Map<Long, Frozen.@Valid Shown> shown,
            Frozen.@Nullable @Valid Shown standing) {}

    record DraftBody(int revision, @NotNull @Size(max = 200) Map<Long, Frozen.@Valid Shown> shown) {}

    record PublishedEdition(int number) {}

    /** @param shown by the numbers of the pieces */
    record EditionShown(Map<Long, Frozen.Shown> shown) {}

    record DraftLink(String token) {}

    record KeptPhoto(String hash) {}

    record MethodText(List<String> lines) {}

    private final WriteUps writeUps;
    private final WriteUpRows lists;
    private final Editions editions;
    private final MethodLines method;
    private final Files files;

    WriteUpController(WriteUps writeUps, WriteUpRows lists, Editions editions, MethodLines method, Files files) {
        this.writeUps = writeUps;
        this.lists = lists;
        this.editions = editions;
        this.method = method;
        this.files = files;
    }

    @GetMapping
    Page<WriteUps.WriteUpRow> writeUps(
            @RequestParam(required = false) @Nullable Long model,
            @RequestParam(required = false) @Nullable @Size(max = 120) String words,
            @RequestParam(defaultValue = "0") @Min(0) @Max(100_000) int page,
            @RequestParam(defaultValue = "50") @Min(1) @Max(200) int size) {
        return lists.all(model, words, page, size);
    }

    @PostMapping
    WriteUps.WriteUpPage makeWriteUp(@Valid @RequestBody NewWriteUp body, Principal who) {
        return writeUps.make(
                body.title(),
                body.models(),
                body.pieces().stream().map(AddedPiece::piece).toList(),
                body.kind(),
                who.getName());
    }

    @GetMapping("/{id}")
    WriteUps.WriteUpPage writeUp(@PathVariable long id) {
        return writeUps.whole(id);
    }

    @PutMapping("/{id}")
    WriteUps.WriteUpPage changeWriteUp(@PathVariable long id, @Valid @RequestBody ChangedWriteUp body, Principal who) {
        return writeUps.change(id, body.title(), body.subtitle(), body.models(), body.listed(), who.getName());
    }

    @DeleteMapping("/{id}")
    void removeWriteUp(@PathVariable long id, Principal who) {
        writeUps.remove(id, who.getName());
    }

    @PostMapping("/{id}/restore")
    void restoreWriteUp(@PathVariable long id, Principal who) {
        writeUps.restore(id, who.getName());
    }

    @PostMapping("/{id}/pieces")
    WriteUps.PieceRow addPiece(@PathVariable long id, @Valid @RequestBody AddedPiece body, Principal who) {
        return writeUps.add(id, body.piece(), body.after(), who.getName());
    }

    @PutMapping("/{id}/pieces/{piece}")
    WriteUps.PieceRow changePiece(
            @PathVariable long id, @PathVariable long piece, @Valid @RequestBody ChangedPiece body, Principal who) {
        return writeUps.change(id, piece, body.body(), body.revision(), who.getName());
    }

    @PutMapping("/{id}/pieces/{piece}/place")
    void movePiece(@PathVariable long id, @PathVariable long piece, @RequestBody MovedPiece body) {
        writeUps.move(id, piece, body.after());
    }

    @DeleteMapping("/{id}/pieces/{piece}")
    void removePiece(@PathVariable long id, @PathVariable long piece, Principal who) {
        writeUps.removePiece(id, piece, who.getName());
    }

    @PostMapping("/{id}/pieces/{piece}/restore")
    WriteUps.PieceRow restorePiece(@PathVariable long id, @PathVariable long piece, Principal who) {
        return writeUps.restorePiece(id, piece, who.getName());
    }

    @PostMapping("/{id}/editions")
    PublishedEdition publish(@PathVariable long id, @Valid @RequestBody PublishBody body, Principal who) {
        return new PublishedEdition(editions.publish(
                id,
                body.revision(),
                body.shown(),
                body.standing(),
                body.changes(),
                body.listed(),
                body.kind(),
                who.getName()));
    }

    @GetMapping("/{id}/editions/{number}")
    EditionShown edition(@PathVariable long id, @PathVariable int number) {
        return new EditionShown(editions.shown(id, number));
    }

    @PostMapping("/{id}/draft")
    DraftLink showDraft(@PathVariable long id, @Valid @RequestBody DraftBody body, Principal who) {
        return new DraftLink(editions.showDraft(id, body.revision(), body.shown(), who.getName()));
    }

    @DeleteMapping("/{id}/draft")
    void hideDraft(@PathVariable long id, Principal who) {
        editions.hideDraft(id, who.getName());
    }

    @PostMapping("/photos")
    KeptPhoto keepPhoto(@RequestBody byte[] bytes) {
        return new KeptPhoto(files.keepPicture(bytes));
    }

    /** How configurations were measured, in lines. */
    @GetMapping("/method")
    MethodText method(@RequestParam @Size(min = 1, max = 20) List<@NotNull Long> configuration) {
        return new MethodText(method.of(configuration));
    }
}
