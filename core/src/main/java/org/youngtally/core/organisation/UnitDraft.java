package org.youngtally.core.organisation;

import java.lang.invoke.MethodHandles;
import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.fault.DefinitionName;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;

/** A unit as somebody wrote it, not yet checked; what is absent is null. */
public record UnitDraft(String key, String title, String below, String code, String timeZone) {
    private static final int LONGEST_CODE = 20;

    public static final Group<UnitDraft> PROPERTIES = Group.of(
            "a unit",
            MethodHandles.lookup(),
            UnitDraft.class,
            Property.key("key", "The name by which the unit is called.").required(),
            Property.title("key"),
            Property.key("below", "The unit that it is a part of.").otherwise("none: at the top of the tree"),
            Property.text(
                            "code",
                            "code",
                            "What the series of a record is given for {unit}; no two units have the same.")
                    .otherwiseAs("key"),
            Property.text(
                            "time-zone",
                            "timeZone",
                            "Where its days begin, such as Europe/Vienna: an allocation for the unit that names no date is dated by it.")
                    .otherwise("the time zone of the service"));

    public static UnitDraft of(Unit unit) {
        return new UnitDraft(
                unit.key(),
                unit.title().equals(unit.key()) ? null : unit.title(),
                unit.below().orElse(null),
                unit.code().equals(unit.key()) ? null : unit.code(),
                unit.zone().map(ZoneId::getId).orElse(null));
    }

    /** What is wrong with it by itself. */
    public List<Fault> faults() {
        var faults = new ArrayList<Fault>();
        DefinitionName.fault("key", key).ifPresent(faults::add);
        faults.addAll(PROPERTIES.faults("", this));
        if (code != null
                && (code.isBlank()
                        || code.length() > LONGEST_CODE
                        || code.chars()
                                .anyMatch(symbol -> Character.isWhitespace(symbol) || Character.isISOControl(symbol))))
            faults.add(new Fault(
                    "code",
                    "‘" + code + "’ is not a code",
                    "give 1 to " + LONGEST_CODE + " letters, digits or signs without white space, such as WK"));
        if (timeZone != null && zone().isEmpty())
            faults.add(new Fault(
                    "time-zone",
                    "‘" + timeZone + "’ is not a time zone",
                    "give one such as Europe/Vienna or UTC, or leave it out for the service's own"));
        return faults;
    }

    /** The unit in version 1. For a draft without faults. */
    public Unit checked() {
        return new Unit(
                key,
                title == null || title.isBlank() ? key : title.strip(),
                Optional.ofNullable(below),
                code == null ? key : code,
                zone(),
                1);
    }

    private Optional<ZoneId> zone() {
        if (timeZone == null) return Optional.empty();
        try {
            return Optional.of(ZoneId.of(timeZone));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }
}
