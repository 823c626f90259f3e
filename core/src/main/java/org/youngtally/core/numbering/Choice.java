package org.youngtally.core.numbering;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Which items are numbered: those that pass every test. */
public record Choice(List<Test> tests) {
    /** All of them. */
    public static final Choice ALL = new Choice(List.of());

    public Choice {
        tests = List.copyOf(tests);
    }

    /** What an item has to be like. */
    public sealed interface Test {
        /** @param oneOf its values; an empty text stands for none */
        record Attribute(String name, Set<String> oneOf) implements Test {
            public Attribute {
                oneOf = Set.copyOf(oneOf);
            }
        }

        /** What is written there, without regard to blanks at its ends. */
        record Text(Set<String> oneOf) implements Test {
            public Text {
                oneOf = Set.copyOf(oneOf);
            }
        }

        /** Within a box of each sheet, its edges included; in the units of the sheet. */
        record Box(double left, double top, double right, double bottom) implements Test {}

        /** One of those that somebody picked, in the order in which they were picked. */
        record Picked(List<String> ids) implements Test {
            public Picked {
                ids = List.copyOf(ids);
            }
        }
    }

    /** Those that are chosen, as they are listed; or as they were picked. */
    public List<Item> of(List<Item> items) {
        List<Item> chosen = items.stream()
                .filter(item -> tests.stream().allMatch(test -> passes(test, item)))
                .toList();
        for (Test test : tests) if (test instanceof Test.Picked picked) chosen = asPicked(picked, chosen);
        return chosen;
    }

    private static boolean passes(Test test, Item item) {
        return switch (test) {
            case Test.Attribute attribute ->
                attribute
                        .oneOf()
                        .contains(item.attributes()
                                .getOrDefault(attribute.name(), "")
                                .strip());
            case Test.Text text -> text.oneOf().contains(item.text().strip());
            case Test.Box box ->
                item.place()
                        .filter(at -> at.x() >= box.left()
                                && at.x() <= box.right()
                                && at.y() >= box.top()
                                && at.y() <= box.bottom())
                        .isPresent();
            // Put in their order, and chosen, afterwards.
            case Test.Picked picked -> true;
        };
    }

    private static List<Item> asPicked(Test.Picked picked, List<Item> chosen) {
        Map<String, Item> byId = new HashMap<>();
        for (Item item : chosen) byId.put(item.id(), item);
        return picked.ids().stream()
                .distinct()
                .filter(byId::containsKey)
                .map(byId::get)
                .toList();
    }
}
