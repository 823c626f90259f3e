package org.youngtally.core.property;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;

/** The values of some properties; those without one are absent. */
public final class Values {
    public static final Values NONE = new Values(Map.of());

    private final Map<Property<?>, Object> values;

    private Values(Map<Property<?>, Object> values) {
        this.values = values;
    }

    /** The value, or null where it is absent. */
    @SuppressWarnings("unchecked") // put under its property alone, by with
    public <T> T get(Property<T> property) {
        return (T) values.get(property);
    }

    /** The value, or what counts where it is absent. */
    public <T> T orUsual(Property<T> property) {
        T value = get(property);
        return value == null ? property.usual() : value;
    }

    /** @param value null to leave it out */
    public <T> Values with(Property<T> property, T value) {
        var changed = new LinkedHashMap<>(values);
        if (value == null) changed.remove(property);
        else changed.put(property, value);
        return new Values(changed);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Values those && values.equals(those.values);
    }

    @Override
    public int hashCode() {
        return Objects.hash(values);
    }

    @Override
    public String toString() {
        return values.toString();
    }
}
