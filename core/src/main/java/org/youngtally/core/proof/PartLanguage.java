package org.youngtally.core.proof;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * Every text, in folded symbols, that a part of a pattern can be: a deterministic automaton whose states are small
 * numbers, 0 the first. No part is ever empty.
 */
interface PartLanguage {
    int NOWHERE = -1;

    /** The symbols that lead on from a state. */
    String symbols(int state);

    int step(int state, char symbol);

    boolean accepts(int state);

    /** Whether it may hold texts that the part never is. */
    default boolean isWider() {
        return false;
    }

    /** Exactly these texts. */
    static PartLanguage of(Collection<String> texts) {
        List<Map<Character, Integer>> moves = new ArrayList<>(List.of(new HashMap<>()));
        List<Boolean> ends = new ArrayList<>(List.of(false));
        for (String text : texts) {
            int state = 0;
            for (char symbol : text.toCharArray()) {
                Integer next = moves.get(state).get(symbol);
                if (next == null) {
                    next = moves.size();
                    moves.get(state).put(symbol, next);
                    moves.add(new HashMap<>());
                    ends.add(false);
                }
                state = next;
            }
            ends.set(state, true);
        }
        List<String> symbols = moves.stream()
                .map(each -> each.keySet().stream().map(String::valueOf).reduce("", String::concat))
                .toList();
        return new PartLanguage() {
            @Override
            public String symbols(int state) {
                return symbols.get(state);
            }

            @Override
            public int step(int state, char symbol) {
                return moves.get(state).getOrDefault(symbol, NOWHERE);
            }

            @Override
            public boolean accepts(int state) {
                return ends.get(state);
            }
        };
    }

    /**
     * Any text of a length within bounds in these symbols: check symbols, which in truth follow from the rest, and
     * texts that are given.
     */
    static PartLanguage any(String folded, int shortest, int longest, boolean wider) {
        String symbols = folded.chars()
                .distinct()
                .mapToObj(symbol -> String.valueOf((char) symbol))
                .collect(Collectors.joining());
        return new PartLanguage() {
            @Override
            public String symbols(int state) {
                return state < longest ? symbols : "";
            }

            @Override
            public int step(int state, char symbol) {
                return state < longest && symbols.indexOf(symbol) >= 0 ? state + 1 : NOWHERE;
            }

            @Override
            public boolean accepts(int state) {
                return state >= shortest;
            }

            @Override
            public boolean isWider() {
                return wider;
            }
        };
    }
}
