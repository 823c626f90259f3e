package org.youngtally.core.numbering;

import java.util.List;
import java.util.Optional;

/**
 * What a rule comes to in a document.
 *
 * @param changes in the order of the count; items that stay as they are have none
 * @param groups in the order of their values, digits in them as numbers
 * @param faults why it cannot be carried out
 */
public record NumberPlan(List<Change> changes, List<Group> groups, List<ItemFault> faults) {
    public NumberPlan {
        changes = List.copyOf(changes);
        groups = List.copyOf(groups);
        faults = List.copyOf(faults);
    }

    /**
     * A new text for an item.
     *
     * @param number that it has then; absent for none
     */
    public record Change(String item, String before, String after, Optional<String> number) {}

    /**
     * Items that are counted together.
     *
     * @param values of the attributes by which the count begins again
     * @param items how many of them have a number then
     * @param first the number of the first; empty where all have numbers of things that are met in other groups
     * @param last the number of the last, likewise
     */
    public record Group(List<String> values, int items, String first, String last) {}

    /**
     * @param item at fault
     * @param problem a clause for people that follows its name
     * @param accepted what would do
     */
    public record ItemFault(String item, String problem, String accepted) {}
}
