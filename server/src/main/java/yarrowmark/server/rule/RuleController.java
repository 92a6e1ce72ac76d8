package yarrowmark.server.rule;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.core.rule.MarkedNumber;
import yarrowmark.core.rule.ScorePattern;
import yarrowmark.core.rule.ShippedRules;
import yarrowmark.server.platform.PlainLine;
import yarrowmark.server.platform.Problem;

@RestController
@RequestMapping("/api")
class RuleController {
    /** @param start of the mark, counted in characters from 0, and its end behind the last one */
    record MarkBody(@NotNull @Size(max = 1_900_000) String text, int start, int end) {}

    record PatternBody(
            @NotBlank @PlainLine @Size(max = 120) String name,
            @NotNull ScorePattern.Kind kind,
            @NotBlank @Size(max = 500) String expression,
            @NotBlank @PlainLine @Size(max = 30) String unit,
            int occurrence,
            @Nullable Long metricId) {
        Rules.PatternPart part() {
            return new Rules.PatternPart(name, kind, expression, unit, occurrence, metricId);
        }
    }

    record RuleBody(
            @NotEmpty @Size(max = 60) List<@Valid @NotNull PatternBody> patterns,
            @NotNull @Size(max = 1_900_000) String sample) {}

    record ToolRow(String key, String name, String how, List<String> tests, String sample) {}

    record ToolSuiteBody(
            @NotBlank @PlainLine @Size(max = 120) String name,
            @NotBlank @PlainLine @Size(max = 40) String version,
            @Nullable @Size(max = 120) String mode,
            @NotBlank @Size(max = 1_900_000) String sample) {}

    record TextBody(@NotBlank @Size(max = 1_900_000) String text) {}

    private final Rules rules;
    private final SessionText texts;

    RuleController(Rules rules, SessionText texts) {
        this.rules = rules;
        this.texts = texts;
    }

    @GetMapping("/rules")
    List<Rules.RuleRow> all() {
        return rules.all();
    }

    /** General-purpose tools whose output can be read without making a rule. */
    @GetMapping("/rules/tools")
    List<ToolRow> tools() {
        return ShippedRules.all().stream()
                .map(t -> new ToolRow(
                        t.key(),
                        t.name(),
                        t.how(),
                        t.parts().stream().map(p -> p.pattern().name()).toList(),
                        t.sample()))
                .toList();
    }

    @PostMapping("/rules/tools/{key}/suite")
    void makeSuite(@PathVariable String key, @Valid @RequestBody ToolSuiteBody body, Principal who) {
        rules.makeSuite(
                key,
                body.name().strip(),
                body.version().strip(),
                body.mode() == null ? "" : body.mode().strip(),
                body.sample(),
                who.getName());
    }

    /** A pattern for the number that was marked in a sample. Nothing is stored. */
    @PostMapping("/rules/mark")
    Rules.PatternPart mark(@Valid @RequestBody MarkBody body) {
        try {
            ScorePattern p = MarkedNumber.pattern(body.text(), body.start(), body.end());
            return new Rules.PatternPart(p.name(), p.kind(), p.expression(), p.unit(), p.occurrence(), null);
        } catch (IllegalArgumentException e) {
            throw Problem.invalid("no-number-marked", Problem.words(e));
        }
    }

    /** What patterns find in a text. Nothing is stored. */
    @PostMapping("/rules/try")
    Rules.TriedRule tryOut(@Valid @RequestBody RuleBody body) {
        return rules.tryOut(body.patterns().stream().map(PatternBody::part).toList(), body.sample());
    }

    @PostMapping("/suite-versions/{id}/rules")
    List<Rules.RuleRow> make(@PathVariable long id, @Valid @RequestBody RuleBody body, Principal who) {
        rules.make(id, body.patterns().stream().map(PatternBody::part).toList(), body.sample(), who.getName());
        return rules.all();
    }

    @DeleteMapping("/rules/{id}")
    List<Rules.RuleRow> retire(@PathVariable long id, Principal who) {
        rules.retire(id, who.getName());
        return rules.all();
    }

    /** Scores of a session out of a text. @param store whether they are stored, or only shown */
    @PostMapping("/sessions/{id}/text")
    SessionText.TextAnswer text(
            @PathVariable long id,
            @RequestParam(defaultValue = "false") boolean store,
            @Valid @RequestBody TextBody body,
            Principal who) {
        return store ? texts.take(id, body.text(), who.getName()) : texts.look(id, body.text());
    }
}
