package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.organisation.Keeping;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.KindField;
import org.youngtally.core.organisation.Organisation;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.RouteCheck;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.Routing;
import org.youngtally.core.organisation.Unit;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerSnapshot;
import org.youngtally.ledger.Outcome;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.access.SignedIn;
import org.youngtally.service.body.Takes;
import org.youngtally.service.work.HeavyWork;

/** Units, kinds of records, and the routes that find a record's series. */
@RestController
@RequestMapping(Api.V1)
class OrganisationController {
    private final Ledger ledger;
    private final HeavyWork work;

    OrganisationController(Ledger ledger, HeavyWork work) {
        this.ledger = ledger;
        this.work = work;
    }

    /**
     * @param below the unit it is a part of
     * @param code its text in an identifier
     * @param timeZone where it is not the service's own
     */
    record UnitView(
            String key,
            String title,
            @Nullable String below,
            String code,
            @Nullable String timeZone,
            int version,
            boolean retired) {
        static UnitView of(Unit unit) {
            return new UnitView(
                    unit.key(),
                    unit.title(),
                    unit.below().orElse(null),
                    unit.code(),
                    unit.zone().map(ZoneId::getId).orElse(null),
                    unit.version(),
                    unit.retired());
        }
    }

    @GetMapping("/units")
    @SignedIn
    @Operation(
            operationId = "listUnits",
            summary = "The units (companies, branches, workshops), each below the one it is a part of")
    List<UnitView> units(
            @Parameter(description = "Whether retired units are included") @RequestParam(defaultValue = "false")
                    boolean retired,
            Caller caller) {
        return caller.snapshot().organisation().units().values().stream()
                .filter(unit -> retired || !unit.retired())
                .map(UnitView::of)
                .toList();
    }

    /**
     * @param type text, number, date, choice or yes-no
     * @param sticky whether the next record that somebody writes begins with it
     * @param filled whether only the service fills it, when the number is allocated
     */
    record KindFieldView(
            String name,
            String title,
            String type,
            @Nullable String codebook,
            @Nullable String within,
            boolean required,
            boolean sticky,
            boolean filled) {
        static KindFieldView of(KindField field, Keeping keeping, Set<String> filled) {
            return new KindFieldView(
                    field.name(),
                    field.title(),
                    field.type().word(),
                    field.codebook().orElse(null),
                    field.within().orElse(null),
                    field.required(),
                    keeping.sticky().contains(field.name()),
                    filled.contains(field.name()));
        }
    }

    /**
     * @param lines the fields of each of its lines; empty for a kind without lines
     * @param knownBy the fields by each of which a record is known again
     * @param agree the fields that are the same in all units
     * @param deleting what happens to the number of a deleted record: void or return
     * @param datedBy the field that holds the business date; absent for today
     * @param lineStep how far the number of one line is from the next
     */
    record KindView(
            String key,
            String title,
            List<KindFieldView> fields,
            List<KindFieldView> lines,
            List<String> knownBy,
            List<String> agree,
            String deleting,
            @Nullable String datedBy,
            int lineStep,
            int version,
            boolean retired) {
        static KindView of(Kind kind, LedgerSnapshot snapshot) {
            Keeping keeping = kind.keeping();
            Set<String> filled = RecordSeries.placing(snapshot).filled(kind);
            return new KindView(
                    kind.key(),
                    kind.title(),
                    kind.fields().stream()
                            .map(field -> KindFieldView.of(field, keeping, filled))
                            .toList(),
                    kind.lines().stream()
                            .map(field -> KindFieldView.of(field, Keeping.USUAL, Set.of()))
                            .toList(),
                    keeping.knownBy(),
                    keeping.agree(),
                    keeping.deleting().word(),
                    keeping.datedBy().orElse(null),
                    keeping.lineStep(),
                    kind.version(),
                    kind.retired());
        }
    }

    @GetMapping("/kinds")
    @SignedIn
    @Operation(operationId = "listKinds", summary = "The kinds of records, with their fields")
    List<KindView> kinds(
            @Parameter(description = "Whether retired kinds are included") @RequestParam(defaultValue = "false")
                    boolean retired,
            Caller caller) {
        return caller.snapshot().organisation().kinds().values().stream()
                .filter(kind -> retired || !kind.retired())
                .map(kind -> KindView.of(kind, caller.snapshot()))
                .toList();
    }

    @GetMapping("/kinds/{kind}")
    @SignedIn
    @Operation(operationId = "showKind", summary = "One kind of record")
    KindView kind(@PathVariable String kind, Caller caller) {
        return KindView.of(RecordSeries.kind(caller.snapshot(), kind), caller.snapshot());
    }

    /**
     * What the value of a field must be:
     *
     * @param oneOf one of these; or
     * @param from the least and
     * @param to the greatest
     */
    record TestForm(
            @Nullable List<String> oneOf,
            @Nullable String from,
            @Nullable String to) {}

    /**
     * A route.
     *
     * @param route where it stands, by which it is called
     * @param when what the fields of the record must be; empty where it always serves
     * @param condition the same as people read it; absent where it always serves
     */
    record RouteView(
            String route,
            String kind,
            String unit,
            Map<String, TestForm> when,
            @Nullable String condition,
            String series,
            String into,
            int version) {
        static RouteView of(Route route) {
            var when = new TreeMap<String, TestForm>();
            route.when()
                    .tests()
                    .forEach((field, test) -> when.put(
                            field,
                            new TestForm(
                                    test.oneOf().isEmpty() ? null : test.oneOf(),
                                    test.from().orElse(null),
                                    test.to().orElse(null))));
            return new RouteView(
                    route.key(),
                    route.kind(),
                    route.unit(),
                    when,
                    route.when().isAlways() ? null : route.when().toString(),
                    route.series(),
                    route.into(),
                    route.version());
        }
    }

    @GetMapping("/routes")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(operationId = "listRoutes", summary = "The routes: which series is used for records of a kind in a unit")
    List<RouteView> routes(Caller caller) {
        return caller.snapshot().organisation().routes().values().stream()
                .filter(route -> caller.reads(route.series()))
                .map(RouteView::of)
                .toList();
    }

    /**
     * A kind in a unit.
     *
     * @param routes the rules that serve it, in the order in which they are tried: its own, then those of the units
     *     above, to the first that always holds
     * @param hidden whether some of them lead to series that the account may not see
     * @param gap whether a record may be left without a series: no rule serves it, or none without a condition
     */
    record CellView(String kind, String unit, List<RouteView> routes, boolean hidden, boolean gap) {}

    record GridView(List<KindView> kinds, List<UnitView> units, List<CellView> cells) {}

    @GetMapping("/route-grid")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "showRouteGrid",
            summary = "Kinds by units: which series is used, by its own or an inherited route, and the missing routes")
    GridView grid(Caller caller) {
        Organisation organisation = caller.snapshot().organisation();
        var cells = new ArrayList<CellView>();
        List<KindView> kinds = kinds(false, caller);
        List<UnitView> units = units(false, caller);
        for (KindView kind : kinds)
            for (UnitView unit : units) cells.add(cell(organisation, kind.key(), unit.key(), caller));
        return new GridView(kinds, units, cells);
    }

    private static CellView cell(Organisation organisation, String kind, String unit, Caller caller) {
        var serving = new ArrayList<Route>();
        boolean always = false;
        for (String at : organisation.upwards(unit)) {
            for (Route route : organisation.routesAt(kind, at)) {
                if (always) break;
                serving.add(route);
                always = route.when().isAlways();
            }
        }
        List<RouteView> seen = serving.stream()
                .filter(route -> caller.reads(route.series()))
                .map(RouteView::of)
                .toList();
        return new CellView(kind, unit, seen, seen.size() < serving.size(), !always);
    }

    /**
     * @param verdict chosen, condition-fails or not-reached
     * @param fails the field whose test fails
     */
    record TriedView(
            String route,
            @Nullable String condition,
            String series,
            String verdict,
            @Nullable String fails) {}

    /**
     * A unit on the way up, and its rules for the kind.
     *
     * @param hidden whether there are others, which lead to series that the account may not see
     */
    record StepView(String unit, List<TriedView> tried, boolean hidden) {}

    /** @param series the one that would number the record; absent where no rule serves it */
    record WhyView(
            String kind,
            String unit,
            @Nullable String series,
            @Nullable String into,
            List<StepView> steps) {}

    @GetMapping("/routes/why")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "explainRoute",
            summary =
                    "Which series a record would be numbered from, each route that was tried, and why it applies or not")
    WhyView why(
            @Parameter(description = "The kind of record") @RequestParam String kind,
            @Parameter(description = "The unit of the record") @RequestParam String unit,
            @Parameter(description = "The value of a field, as NAME=VALUE; once for each field")
                    @RequestParam(required = false)
                    List<String> field,
            Caller caller) {
        Kind of = RecordSeries.kind(caller.snapshot(), kind);
        Unit in = RecordSeries.unit(caller.snapshot(), unit);
        Routing.Found found = RecordSeries.why(caller.snapshot(), of, in, Requests.fields(field));
        Optional<Route> chosen = found.chosen().filter(route -> caller.reads(route.series()));
        if (found.chosen().isPresent() && chosen.isEmpty())
            caller.need(Right.READ, new Where(Optional.empty(), Optional.of(of.key()), Optional.of(in.key())));
        List<StepView> steps = found.steps().stream()
                .map(step -> new StepView(
                        step.unit(),
                        step.tried().stream()
                                .filter(tried -> caller.reads(tried.route().series()))
                                .map(tried -> new TriedView(
                                        tried.route().key(),
                                        tried.route().when().isAlways()
                                                ? null
                                                : tried.route().when().toString(),
                                        tried.route().series(),
                                        tried.verdict()
                                                .name()
                                                .toLowerCase(Locale.ROOT)
                                                .replace('_', '-'),
                                        tried.fails().orElse(null)))
                                .toList(),
                        step.tried().stream()
                                .anyMatch(tried -> !caller.reads(tried.route().series()))))
                .toList();
        return new WhyView(
                of.key(),
                in.key(),
                chosen.map(Route::series).orElse(null),
                chosen.map(Route::into).orElse(null),
                steps);
    }

    /**
     * @param when what the fields of the record must be; default: any
     * @param into the field that receives the number; default: number
     */
    record RouteForm(
            @Nullable Map<String, TestForm> when,
            String series,
            @Nullable String into) {
        private RouteDraft draft(String kind, String unit) {
            if (when == null || when.isEmpty()) return new RouteDraft(kind, unit, null, series, into);
            var tests = new TreeMap<String, RouteDraft.TestDraft>();
            when.forEach(
                    (field, test) -> tests.put(field, new RouteDraft.TestDraft(test.oneOf(), test.from(), test.to())));
            return new RouteDraft(kind, unit, tests, series, into);
        }
    }

    @Takes(Takes.A_LIST)
    @PutMapping("/routes/{kind}/{unit}")
    @Needs(value = Right.DEFINE, at = At.REQUEST)
    @Operation(
            operationId = "defineRoute",
            summary =
                    "Define or change a route, with or without a condition. If-None-Match: * for a new one, If-Match with the version for an existing one")
    ResponseEntity<RouteView> define(
            @PathVariable String kind,
            @PathVariable String unit,
            @RequestBody RouteForm form,
            @RequestHeader(name = "If-Match", required = false) String match,
            @RequestHeader(name = "If-None-Match", required = false) String noneMatch,
            Caller caller) {
        caller.need(Right.DEFINE, new Where(Optional.empty(), Optional.of(kind), Optional.of(unit)));
        RouteDraft draft = form.draft(kind, unit);
        Outcome.Defined defined = DefiningRights.define(
                caller, ledger, work, new Act.Define(Drafts.of(draft), List.of(), Requests.replaced(match, noneMatch)));
        Route route = defined.routes().stream().findFirst().orElseGet(() -> standing(draft));
        return ResponseEntity.status("*".equals(noneMatch) ? HttpStatus.CREATED : HttpStatus.OK)
                .eTag(Integer.toString(route.version()))
                .body(RouteView.of(route));
    }

    /** The route that stood as it was wanted. */
    private Route standing(RouteDraft draft) {
        LedgerSnapshot snapshot = ledger.snapshot();
        return RouteCheck.of(draft, snapshot.organisation(), snapshot.series(), snapshot::choices)
                .route()
                .map(Route::key)
                .map(snapshot.organisation().routes()::get)
                .orElseThrow();
    }

    @DeleteMapping("/routes/{kind}/{unit}")
    @Needs(value = Right.DEFINE, at = At.REQUEST)
    @Operation(operationId = "removeRoute", summary = "Remove a route; numbers that were allocated by it do not change")
    ResponseEntity<Void> remove(
            @PathVariable String kind,
            @PathVariable String unit,
            @Parameter(description = "The condition as in the list of routes; none for the route without one")
                    @RequestParam(required = false)
                    String condition,
            @RequestHeader(name = "If-Match", required = false) String match,
            Caller caller) {
        caller.need(Right.DEFINE, new Where(Optional.empty(), Optional.of(kind), Optional.of(unit)));
        Requests.defined(
                ledger,
                new Act.RemoveRoute(
                        kind + " in " + unit + (condition == null || condition.isBlank() ? "" : " when " + condition),
                        Requests.expected(match, null)),
                caller.name());
        return ResponseEntity.noContent().build();
    }

    @GetMapping("/series/{series}/routes")
    @Needs(value = Right.READ, at = At.SERIES)
    @Operation(operationId = "listUses", summary = "The routes to a series")
    List<RouteView> uses(@PathVariable String series, Caller caller) {
        Requests.series(caller, series);
        caller.need(Right.READ, Where.series(series));
        return caller.snapshot().organisation().routesTo(series).stream()
                .map(RouteView::of)
                .toList();
    }
}
