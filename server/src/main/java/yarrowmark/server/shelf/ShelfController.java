package yarrowmark.server.shelf;

import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Digits;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import java.security.Principal;
import java.time.LocalDate;
import java.util.List;
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
import yarrowmark.server.files.Files;
import yarrowmark.server.platform.Page;
import yarrowmark.server.platform.PlainLine;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.model.DeviceClass;
import yarrowmark.server.shelf.model.ModelRow;
import yarrowmark.server.shelf.search.ShelfIndex;

@RestController
@RequestMapping("/api")
class ShelfController {
    record ModelBody(
            @NotBlank @PlainLine @Size(max = 120) String maker,
            @NotBlank @PlainLine @Size(max = 120) String name,
            @NotNull DeviceClass deviceClass,
            @Nullable
                    @DecimalMin(value = "0", inclusive = false, message = "must be above 0")
                    @Digits(integer = 10, fraction = 2)
                    BigDecimal price,
            @Nullable @Pattern(regexp = "[A-Z]{3}", message = "must be a three-letter code such as EUR")
                    String currency,
            @Nullable LocalDate released) {

        Shelf.ModelFacts facts() {
            if ((price == null) != (currency == null)) {
                throw Problem.invalid(
                        "price-without-currency", "A price needs its currency, and a currency its price.");
            }
            return new Shelf.ModelFacts(maker, name, deviceClass, price, currency, released);
        }
    }

    /**
     * @param seen the kept value the person saw; absent where the field was empty
     * @param text as typed; absent or blank empties the field
     */
    record FieldBody(@Nullable @Size(max = 20_000) String seen, @Nullable @Size(max = 20_000) String text) {}

    record UnitBody(@NotBlank @PlainLine @Size(max = 80) String label) {}

    record UnitRetiredBody(boolean retired) {}

    private final Shelf shelf;
    private final ShelfPages pages;
    private final Files files;

    ShelfController(Shelf shelf, ShelfPages pages, Files files) {
        this.shelf = shelf;
        this.pages = pages;
        this.files = files;
    }

    /** @param fact a fact that some configuration of the model must have, by its key; value is typed as people write it */
    @GetMapping("/models")
    Page<ModelRow> models(
            @RequestParam(defaultValue = "") @Size(max = 120) String q,
            @RequestParam(defaultValue = "") List<@NotNull DeviceClass> deviceClass,
            @RequestParam(required = false) @Nullable @Size(max = 120) String maker,
            @RequestParam(required = false) @Nullable LocalDate releasedFrom,
            @RequestParam(required = false) @Nullable Double dearest,
            @RequestParam(defaultValue = "false") boolean retired,
            @RequestParam(required = false) @Nullable @Size(max = 80) String fact,
            @RequestParam(defaultValue = "KNOWN") ShelfIndex.Relation relation,
            @RequestParam(defaultValue = "") @Size(max = 120) String value,
            @RequestParam(defaultValue = "NAME") ShelfIndex.Order sort,
            @RequestParam(defaultValue = "false") boolean falling,
            @RequestParam(defaultValue = "0") @Min(0) @Max(10_000) int page,
            @RequestParam(defaultValue = "50") @Min(1) @Max(200) int size) {
        ShelfIndex.FactCondition condition = fact == null ? null : ShelfIndex.FactCondition.read(fact, relation, value);
        return pages.search(
                new ShelfIndex.Question(q, deviceClass, maker, releasedFrom, dearest, retired, condition),
                new ShelfIndex.InOrder(sort, falling),
                page,
                size);
    }

    @GetMapping("/makers")
    List<String> makers() {
        return pages.makerNames();
    }

    @PostMapping("/models")
    ModelPage make(@Valid @RequestBody ModelBody body, Principal who) {
        return pages.model(shelf.make(body.facts(), who.getName()));
    }

    @GetMapping("/models/{id}")
    ModelPage model(@PathVariable long id) {
        return pages.model(id);
    }

    @PutMapping("/models/{id}/fields/{field}")
    ModelPage change(
            @PathVariable long id, @PathVariable String field, @Valid @RequestBody FieldBody body, Principal who) {
        shelf.changeModel(id, field, body.seen(), body.text(), who.getName());
        return pages.model(id);
    }

    @PutMapping("/models/{id}/retired")
    ModelPage retire(@PathVariable long id, @RequestBody UnitRetiredBody body, Principal who) {
        shelf.retireModel(id, body.retired(), who.getName());
        return pages.model(id);
    }

    @DeleteMapping("/models/{id}")
    void remove(@PathVariable long id, Principal who) {
        shelf.removeModel(id, who.getName());
    }

    /** The picture itself, in whatever format a camera or a screenshot has; what is kept is drawn anew from it. */
    @PostMapping("/models/{id}/photo")
    ModelPage photograph(@PathVariable long id, @RequestBody byte[] upload, Principal who) {
        shelf.photograph(id, files.keepPicture(upload), who.getName());
        return pages.model(id);
    }

    @DeleteMapping("/models/{id}/photo")
    ModelPage takePhotoAway(@PathVariable long id, Principal who) {
        shelf.photograph(id, null, who.getName());
        return pages.model(id);
    }

    @PostMapping("/models/{id}/units")
    ModelPage addUnit(@PathVariable long id, @Valid @RequestBody UnitBody body, Principal who) {
        shelf.addUnit(id, body.label(), who.getName());
        return pages.model(id);
    }

    @PutMapping("/units/{id}/fields/{field}")
    ModelPage changeUnit(
            @PathVariable long id, @PathVariable String field, @Valid @RequestBody FieldBody body, Principal who) {
        shelf.changeUnit(id, field, body.seen(), body.text(), who.getName());
        return pages.model(pages.modelOfUnit(id));
    }

    @PutMapping("/units/{id}/retired")
    ModelPage retireUnit(@PathVariable long id, @RequestBody UnitRetiredBody body, Principal who) {
        shelf.retireUnit(id, body.retired(), who.getName());
        return pages.model(pages.modelOfUnit(id));
    }

    @DeleteMapping("/units/{id}")
    void removeUnit(@PathVariable long id, Principal who) {
        shelf.removeUnit(id, who.getName());
    }

    /** Units that must go back within so many days, or are late. */
    @GetMapping("/units/due")
    List<ShelfPages.DueUnit> due(@RequestParam(defaultValue = "14") @Min(0) @Max(400) int days) {
        return pages.due(days);
    }
}
