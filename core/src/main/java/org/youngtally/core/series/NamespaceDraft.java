package org.youngtally.core.series;

import java.lang.invoke.MethodHandles;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.fault.DefinitionName;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.text.Comparison;

/**
 * A namespace as somebody wrote it, not yet checked; what is absent is null.
 *
 * @param repeats {@code allowed} or {@code refused}
 * @param comparison the number of the rule by which identifiers are compared
 */
public record NamespaceDraft(String key, String title, String repeats, Long comparison) {
    private static final String ALLOWED = "allowed";

    public static final Group<NamespaceDraft> PROPERTIES = Group.of(
            "a namespace",
            MethodHandles.lookup(),
            NamespaceDraft.class,
            Property.key("key", "The name that series use for it.").required(),
            Property.title("key"),
            Property.word(
                            "repeats",
                            "repeats",
                            List.of("refused", ALLOWED),
                            "Whether it holds marks that come round again, and need not be unique.")
                    .usually("refused"),
            Property.whole("comparison", "comparison", "The number of the rule by which identifiers are compared.")
                    .otherwise("unchanged; the newest rule for a new namespace"));

    public static NamespaceDraft of(Namespace namespace) {
        return new NamespaceDraft(namespace.key(), namespace.title(), namespace.repeats() ? ALLOWED : null, null);
    }

    public List<Fault> faults() {
        var faults = new ArrayList<Fault>();
        DefinitionName.fault("key", key).ifPresent(faults::add);
        faults.addAll(PROPERTIES.faults("", this));
        if (comparison != null && rule().isEmpty())
            faults.add(new Fault(
                    "comparison",
                    "unknown rule of comparison " + comparison,
                    "write " + Comparison.NEWEST.number() + ", or remove it"));
        return faults;
    }

    /** The rule by which identifiers are to be compared; absent where none is named. */
    public Optional<Comparison> rule() {
        return Optional.ofNullable(comparison)
                .filter(number -> number == number.intValue())
                .flatMap(number -> Comparison.of(number.intValue()));
    }

    /** The namespace in version 1. For a draft without faults. */
    public Namespace checked() {
        return new Namespace(key, title == null || title.isBlank() ? key : title.strip(), ALLOWED.equals(repeats), 1);
    }
}
