package org.youngtally.service.api;

import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.numbering.Item;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.KindField;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.SeriesAssignment;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.series.Series;
import org.youngtally.service.access.Caller;
import org.youngtally.service.numbering.ItemSeries;
import org.youngtally.service.web.Problem;

/** The series to which the routes of a kind lead the items of a document, by the attributes that are its fields. */
final class KindSeries implements ItemSeries {
    private final Caller caller;
    private final Right right;
    private final Kind kind;
    private final Unit unit;
    private final Set<String> fields = new HashSet<>();

    KindSeries(Caller caller, Right right, String kind, String unit) {
        this.caller = caller;
        this.right = right;
        this.kind = RecordSeries.kind(caller.snapshot(), kind);
        this.unit = RecordSeries.unit(caller.snapshot(), unit);
        for (KindField field : this.kind.fields()) fields.add(field.name());
        fields.removeAll(RecordSeries.placing(caller.snapshot()).filled(this.kind));
    }

    private Collection<Route> routes() {
        return caller.snapshot().organisation().routes().values().stream()
                .filter(route -> route.kind().equals(kind.key()))
                .toList();
    }

    @Override
    public List<Series> all() {
        return routes().stream()
                .map(Route::series)
                .distinct()
                // Of others it may not know whether they have a number.
                .filter(series -> caller.reads(series)
                        || caller.may(
                                right,
                                new Where(Optional.of(series), Optional.of(kind.key()), Optional.of(unit.key()))))
                .map(caller.snapshot().series()::get)
                .toList();
    }

    @Override
    public Placed of(Item item) throws Unplaced {
        var given = new TreeMap<String, String>();
        item.named().forEach((name, value) -> {
            if (fields.contains(name) && !value.isBlank()) given.put(name, value.strip());
        });
        try {
            SeriesAssignment.Assigned placed = RecordSeries.of(caller.snapshot(), kind, unit, given, Map.of());
            caller.need(right, RecordSeries.where(placed));
            return new Placed(caller.snapshot().series().get(placed.route().series()), placed.given());
        } catch (Problem e) {
            if (e.type() != Problem.Type.FIELD_FAULTY && e.type() != Problem.Type.NO_ROUTE) throw e;
            throw new Unplaced(
                    "has no number from a series: " + e.getMessage(),
                    e.accepted().orElse("other fields"));
        }
    }
}
