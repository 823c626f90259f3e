package org.youngtally.core.numbering;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.youngtally.core.numbering.Item.Place;
import org.youngtally.core.numbering.Order.Axis;
import org.youngtally.core.numbering.Order.Key;

class OrderTest {
    private static Item at(String id, int sheet, double x, double y) {
        return new Item(id, sheet, "", Optional.empty(), Map.of(), Optional.of(new Place(x, y)));
    }

    private static List<String> ids(Key key, Item... items) {
        return new Order(List.of(key)).of(List.of(items)).stream().map(Item::id).toList();
    }

    private static final Item[] FOUR = {at("a", 1, 90, 12), at("b", 1, 10, 10), at("c", 1, 12, 50), at("d", 1, 88, 48)};

    @Test
    void rowByRow() {
        assertThat(ids(new Key.InLines(Axis.Y, 5, false, false), FOUR)).containsExactly("b", "a", "c", "d");
    }

    @Test
    void rowByRowFromBelowAndFromTheRight() {
        assertThat(ids(new Key.InLines(Axis.Y, 5, true, true), FOUR)).containsExactly("d", "c", "a", "b");
    }

    @Test
    void columnByColumn() {
        assertThat(ids(new Key.InLines(Axis.X, 5, false, false), FOUR)).containsExactly("b", "c", "a", "d");
    }

    @Test
    void alongAnAxis() {
        assertThat(ids(new Key.Along(Axis.X, false), FOUR)).containsExactly("b", "c", "d", "a");
        assertThat(ids(new Key.Along(Axis.Y, true), FOUR)).containsExactly("c", "d", "a", "b");
    }

    @Test
    void sheetsFollowOnEachOther() {
        assertThat(ids(new Key.Along(Axis.X, true), at("a", 2, 90, 0), at("b", 1, 10, 0), at("c", 1, 50, 0)))
                .containsExactly("c", "b", "a");
    }

    @Test
    void blankAttributesAreLastEitherWay() {
        Item[] items = {
            new Item("a", 1, "", Optional.empty(), Map.of("net", "K10"), Optional.empty()),
            new Item("b", 1, "", Optional.empty(), Map.of(), Optional.empty()),
            new Item("c", 1, "", Optional.empty(), Map.of("net", "K9"), Optional.empty())
        };
        assertThat(ids(new Key.ByAttribute("net", false), items)).containsExactly("c", "a", "b");
        assertThat(ids(new Key.ByAttribute("net", true), items)).containsExactly("a", "c", "b");
    }

    @Test
    void anItemWithoutAPlaceHasNoneInAnOrderOfPlaces() {
        var item = new Item("a", 1, "", Optional.empty(), Map.of(), Optional.empty());
        assertThatThrownBy(() -> ids(new Key.Along(Axis.X, false), item, item)).hasMessage("‘a’ has no place");
    }

    /** Compared with a plain implementation that looks for one line after the other. */
    @RepeatedTest(50)
    void linesAreThoseOfAPlainImplementation(RepetitionInfo repetition) {
        var random = new Random(repetition.getCurrentRepetition());
        var items = new ArrayList<Item>();
        for (int i = 0; i < 40; i++)
            items.add(at("item " + i, 1 + random.nextInt(2), random.nextInt(60), random.nextInt(60)));
        Axis axis = random.nextBoolean() ? Axis.X : Axis.Y;
        var key = new Key.InLines(axis, random.nextInt(8), random.nextBoolean(), random.nextBoolean());
        assertThat(new Order(List.of(key)).of(items)).isEqualTo(plainly(key, items));
    }

    private static List<Item> plainly(Key.InLines key, List<Item> items) {
        var all = new ArrayList<Item>();
        for (int sheet = 1; sheet <= 2; sheet++) {
            var left = new ArrayList<Item>();
            for (Item item : items) if (item.sheet() == sheet) left.add(item);
            var lines = new ArrayList<List<Item>>();
            while (!left.isEmpty()) {
                double first = Double.MAX_VALUE;
                for (Item item : left)
                    first = Math.min(first, key.lines().of(item.place().get()));
                var line = new ArrayList<Item>();
                for (Item item : List.copyOf(left))
                    if (key.lines().of(item.place().get()) <= first + key.tolerance()) {
                        line.add(item);
                        left.remove(item);
                    }
                lines.add(line);
            }
            for (List<Item> line : key.linesDescending() ? lines.reversed() : lines) {
                Axis along = key.lines() == Axis.X ? Axis.Y : Axis.X;
                while (!line.isEmpty()) {
                    Item next = line.getFirst();
                    for (Item item : line) {
                        double here = along.of(item.place().get());
                        double best = along.of(next.place().get());
                        if (key.descending() ? here > best : here < best) next = item;
                    }
                    all.add(next);
                    line.remove(next);
                }
            }
        }
        return all;
    }
}
