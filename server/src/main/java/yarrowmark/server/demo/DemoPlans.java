package yarrowmark.server.demo;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;
import yarrowmark.server.access.DemoSignIn;
import yarrowmark.server.catalog.BuiltInSuites;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.plan.PlanItem;
import yarrowmark.server.plan.Plans;
import yarrowmark.server.reference.References;
import yarrowmark.server.shelf.Shelf;

/** A plan of the invented lab, and scores that an invented magazine published. */
@Component
class DemoPlans {
    private final Plans plans;
    private final References references;
    private final Catalog catalog;
    private final BuiltInSuites builtIn;
    private final Shelf shelf;

    DemoPlans(Plans plans, References references, Catalog catalog, BuiltInSuites builtIn, Shelf shelf) {
        this.plans = plans;
        this.references = references;
        this.catalog = catalog;
        this.builtIn = builtIn;
        this.shelf = shelf;
    }

    void add() {
        List<PlanItem> items =
                new ArrayList<>(builtIn.firstRound().stream().map(PlanItem::of).toList());
        items.add(new PlanItem(
                test("Report export").id(),
                null,
                20_000,
                null,
                600_000,
                false,
                "Export the plot book of 40 pages, profile \"field\", lid open",
                null));
        items.add(new PlanItem(
                test("Quadrat recount").id(),
                5,
                null,
                38.0,
                null,
                true,
                "Recount the quadrats of the spring survey",
                null));
        plans.make(new Plans.NewPlan("Field day", 3, 3_000, 5_000, false, items), DemoSignIn.NAME);
        publish("Quenby", "Folio 14", "Heron flight", "61.4", 38);
        publish("Hawkmoor", "Beacon", "Heron flight", "93", 212);
    }

    private void publish(String maker, String model, String test, String value, int results) {
        shelf.findModel(maker, model)
                .ifPresent(id -> references.add(
                        id,
                        new References.NewReference(
                                test(test).metrics().get(0).id(),
                                value,
                                "Tideline Quarterly, readers' results",
                                LocalDate.of(2026, 8, 14),
                                results),
                        DemoSignIn.NAME));
    }

    private TestRow test(String name) {
        return catalog.tests().stream()
                .filter(t -> t.name().equals(name))
                .findFirst()
                .orElseThrow();
    }
}
