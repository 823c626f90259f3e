package org.youngtally.core.property;

import java.lang.invoke.MethodHandle;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.MethodType;
import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.youngtally.core.fault.Fault;

/**
 * The properties of one sort of thing, in the order in which they are written.
 *
 * @param <R> the thing, as somebody wrote it
 */
public final class Group<R> {
    private final String called;
    private final List<Property<?>> properties;
    private final Function<Values, R> made;
    private final Function<R, Values> taken;

    private Group(String called, List<Property<?>> properties, Function<Values, R> made, Function<R, Values> taken) {
        this.called = called;
        this.properties = List.copyOf(properties);
        this.made = made;
        this.taken = taken;
    }

    /**
     * @param called what messages call the thing, such as "a range"
     * @param made the thing with these values
     * @param taken the values of a thing
     */
    public static <R> Group<R> of(
            String called,
            List<? extends Property<?>> properties,
            Function<Values, R> made,
            Function<R, Values> taken) {
        return new Group<>(called, List.copyOf(properties), made, taken);
    }

    /**
     * Of a record that has one component for each property, in the same order; what they are called does not matter.
     *
     * @param lookup of the caller, who sees the record
     */
    public static <R extends Record> Group<R> of(
            String called, MethodHandles.Lookup lookup, Class<R> record, Property<?>... properties) {
        RecordComponent[] components = record.getRecordComponents();
        if (components.length != properties.length)
            throw new IllegalArgumentException(
                    record + " has " + components.length + " components for " + properties.length + " properties");
        try {
            MethodHandle constructor = lookup.findConstructor(
                    record,
                    MethodType.methodType(
                            void.class,
                            Arrays.stream(components)
                                    .map(RecordComponent::getType)
                                    .toArray(Class<?>[]::new)));
            var accessors = new MethodHandle[components.length];
            for (int i = 0; i < components.length; i++) accessors[i] = lookup.unreflect(components[i].getAccessor());
            List<Property<?>> list = List.of(properties);
            return new Group<>(
                    called,
                    list,
                    values -> record.cast(
                            called(constructor, list.stream().map(values::get).toArray())),
                    thing -> {
                        Values values = Values.NONE;
                        for (int i = 0; i < accessors.length; i++)
                            values = put(values, list.get(i), called(accessors[i], thing));
                        return values;
                    });
        } catch (ReflectiveOperationException e) {
            throw new IllegalArgumentException(record + " cannot be reached", e);
        }
    }

    private static Object called(MethodHandle handle, Object... arguments) {
        try {
            return handle.invokeWithArguments(arguments);
        } catch (RuntimeException | Error e) {
            throw e;
        } catch (Throwable e) {
            throw new IllegalStateException("a record is made without checked exceptions", e);
        }
    }

    @SuppressWarnings("unchecked") // the accessor stands at the place of its property
    private static <T> Values put(Values values, Property<T> property, Object value) {
        return values.with(property, (T) value);
    }

    public String called() {
        return called;
    }

    public List<Property<?>> properties() {
        return properties;
    }

    public List<String> names() {
        return properties.stream().<String>map(Property::name).toList();
    }

    /**
     * What is wrong with the values of a thing, each by itself.
     *
     * @param prefix before their names, such as {@code ranges[0].}
     */
    public List<Fault> faults(String prefix, R thing) {
        Values values = values(thing);
        return properties.stream()
                .flatMap(property -> fault(prefix, property, values).stream())
                .toList();
    }

    private static <T> Optional<Fault> fault(String prefix, Property<T> property, Values values) {
        T value = values.get(property);
        return value == null ? Optional.empty() : property.fault(prefix + property.name(), value);
    }

    public R make(Values values) {
        return made.apply(values);
    }

    public Values values(R thing) {
        return taken.apply(thing);
    }
}
