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
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.platform.Page;
import yarrowmark.server.platform.Problem;

@RestController
@RequestMapping("/api")
class ShelfController {
    private static final int MOST_ON_TABLE = 8;

    record ModelBody(
        @NotBlank @Size(max = 120) String maker,
        @NotBlank @Size(max = 120) String name,
        @NotNull DeviceClass deviceClass,
        @Nullable @DecimalMin(value = "0", inclusive = false, message = "must be above 0") @Digits(integer = 10, fraction = 2) BigDecimal price,
        @Nullable @Pattern(regexp = "[A-Z]{3}", message = "must be a three-letter code such as EUR") String currency,
        @Nullable LocalDate released) {

        Shelf.ModelFacts facts() {
            if ((price == null) != (currency == null)) {
                throw Problem.invalid("price-without-currency", "A price needs its currency, and a currency its price.");
            }
            return new Shelf.ModelFacts(maker, name, deviceClass, price, currency, released);
        }
    }

    record ChangeModelBody(int version, @NotNull @Valid ModelBody model) { }

    record UnitBody(@NotBlank @Size(max = 80) String label) { }

    private final Shelf shelf;

    ShelfController(Shelf shelf) {
        this.shelf = shelf;
    }

    @GetMapping("/models")
    Page<ModelRow> models(@RequestParam(defaultValue = "") @Size(max = 120) String q, @RequestParam(defaultValue = "") List<DeviceClass> deviceClass,
                          @RequestParam(defaultValue = "0") @Min(0) int page, @RequestParam(defaultValue = "50") @Min(1) @Max(200) int size) {
        return shelf.search(q, deviceClass, page, size);
    }

    @GetMapping("/makers")
    List<String> makers() {
        return shelf.makerNames();
    }

    @PostMapping("/models")
    ModelPage make(@Valid @RequestBody ModelBody body, Principal who) {
        return shelf.model(shelf.make(body.facts(), who.getName()));
    }

    @GetMapping("/models/{id}")
    ModelPage model(@PathVariable long id) {
        return shelf.model(id);
    }

    @PutMapping("/models/{id}")
    ModelPage change(@PathVariable long id, @Valid @RequestBody ChangeModelBody body, Principal who) {
        shelf.change(id, body.version(), body.model().facts(), who.getName());
        return shelf.model(id);
    }

    @PostMapping("/models/{id}/units")
    ModelPage addUnit(@PathVariable long id, @Valid @RequestBody UnitBody body, Principal who) {
        shelf.addUnit(id, body.label(), who.getName());
        return shelf.model(id);
    }

    @GetMapping("/configurations")
    List<ConfigurationRow> configurations(@RequestParam @Size(max = MOST_ON_TABLE) List<Long> ids) {
        return shelf.configurations(ids);
    }

    @GetMapping("/configurations/{id}")
    ConfigurationPage configuration(@PathVariable long id) {
        return shelf.configuration(id);
    }
}
