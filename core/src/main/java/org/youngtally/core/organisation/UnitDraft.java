package org.youngtally.core.organisation;

import java.lang.invoke.MethodHandles;
import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.fault.DefinitionException;
import org.youngtally.core.fault.DefinitionName;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.gs1.CompanyPrefix;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Shape;

/** A unit as somebody wrote it, not yet checked; what is absent is null. */
public record UnitDraft(
        String key,
        String title,
        String below,
        String code,
        String timeZone,
        Boolean retired,
        String prefix,
        List<String> prefixUsers) {
    private static final Shape.Texts UNITS = new Shape.Texts("", false, false, "[foundry]");
    private static final int LONGEST_CODE = 20;

    public static final Group<UnitDraft> PROPERTIES = Group.of(
            "a unit",
            MethodHandles.lookup(),
            UnitDraft.class,
            Property.key("key", "The name that definitions and requests use for the unit.")
                    .required(),
            Property.title("key"),
            Property.key("below", "The unit that it is a part of.").otherwise("none: at the top of the tree"),
            Property.text("code", "code", "What an identifier shows for {unit}; no two units have the same.")
                    .otherwiseAs("key"),
            Property.text(
                            "time-zone",
                            "timeZone",
                            "Where its days begin, such as Europe/Vienna: an allocation for the unit that names no date is dated by it.")
                    .otherwise("the time zone of the service"),
            Property.flag(
                            "retired",
                            "retired",
                            "Whether the unit is no longer in use: nothing is allocated for it, and it is hidden from lists. Refused while it has a route or a unit in use below it; false brings it back.")
                    .otherwise("unchanged; false for a new unit"),
            Property.of(
                            "company-prefix",
                            "prefix",
                            new Shape.Text("", true),
                            "The GS1 company prefix of the unit, 4 to 12 digits. No two units have the same, nor one that begins as another's.")
                    .otherwise("none"),
            Property.of(
                            "prefix-users",
                            "prefixUsers",
                            UNITS,
                            "Other units that number with the company prefix, each from blocks of its own.")
                    .otherwise("none"));

    /** One that does not say whether it is retired. */
    public UnitDraft(String key, String title, String below, String code, String timeZone) {
        this(key, title, below, code, timeZone, null, null, null);
    }

    public static UnitDraft of(Unit unit) {
        return new UnitDraft(
                unit.key(),
                unit.title().equals(unit.key()) ? null : unit.title(),
                unit.below().orElse(null),
                unit.code().equals(unit.key()) ? null : unit.code(),
                unit.zone().map(ZoneId::getId).orElse(null),
                unit.retired() ? true : null,
                unit.prefix().orElse(null),
                unit.prefixUsers().isEmpty() ? null : unit.prefixUsers());
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
                    "enter 1 to " + LONGEST_CODE + " letters, digits or signs without white space, such as WK"));
        if (timeZone != null && zone().isEmpty())
            faults.add(new Fault(
                    "time-zone",
                    "‘" + timeZone + "’ is not a time zone",
                    "enter one such as Europe/Vienna or UTC, or remove it for that of the service"));
        if (prefix != null)
            try {
                new CompanyPrefix(prefix);
            } catch (DefinitionException e) {
                faults.add(new Fault("company-prefix", e.problem(), e.accepted()));
            }
        if (prefix == null && prefixUsers != null && !prefixUsers.isEmpty())
            faults.add(
                    new Fault("prefix-users", "the unit has no company prefix", "add company-prefix, or remove this"));
        return faults;
    }

    /**
     * The unit in version 1. For a draft without faults.
     *
     * @param before what it was; where the draft does not say whether it is retired, it stays so
     */
    public Unit checked(Optional<Unit> before) {
        return new Unit(
                key,
                title == null || title.isBlank() ? key : title.strip(),
                Optional.ofNullable(below),
                code == null ? key : code,
                zone(),
                1,
                retired == null ? before.filter(Unit::retired).isPresent() : retired,
                Optional.ofNullable(prefix),
                prefixUsers == null ? List.of() : prefixUsers);
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
