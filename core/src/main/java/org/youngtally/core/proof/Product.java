package org.youngtally.core.proof;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;

/**
 * Two sequences of part languages read side by side: finds texts that are of both, or shows that there are none. For
 * two readings of one pattern it can be asked for texts whose parts end in different places alone.
 */
final class Product {
    private static final int MOST_STATES = 400_000;
    private static final int MOST_MOVES = 4_000_000;

    private final List<PartLanguage> one;
    private final List<PartLanguage> other;
    private final boolean apart;
    private final Budget budget;
    private final Map<State, Integer> numbers = new HashMap<>();
    private final List<State> states = new ArrayList<>();
    private final List<List<Move>> moves = new ArrayList<>();
    private final BitSet leading = new BitSet();
    private int made;
    private boolean tooLarge;
    private boolean anyEnd;

    private record State(int onePart, int oneState, int otherPart, int otherState, boolean apart) {}

    private record Move(char symbol, int to) {}

    /**
     * @param apart whether only texts count that the two take apart differently
     * @param budget of the whole proof
     */
    Product(List<PartLanguage> one, List<PartLanguage> other, boolean apart, Budget budget) {
        this.budget = budget;
        this.one = one;
        this.other = other;
        this.apart = apart;
        number(new State(0, 0, 0, 0, false));
        for (int at = 0; at < states.size() && !tooLarge; at++) grow(at);
        // Most pairs never come to an end together, and then nothing leads anywhere.
        if (!tooLarge && anyEnd) lead();
    }

    /** Whether the two were too large to be laid over each other. */
    boolean isTooLarge() {
        return tooLarge;
    }

    /** Whether no text is of both. */
    boolean isEmpty() {
        return !tooLarge && !leading.get(0);
    }

    private int number(State state) {
        return numbers.computeIfAbsent(state, added -> {
            budget.spend(Budget.STATE);
            states.add(added);
            moves.add(new ArrayList<>());
            tooLarge |= states.size() > MOST_STATES;
            anyEnd |= ends(added);
            return states.size() - 1;
        });
    }

    private void grow(int at) {
        State from = states.get(at);
        if (from.onePart == one.size() || from.otherPart == other.size()) return;
        PartLanguage oneLanguage = one.get(from.onePart);
        PartLanguage otherLanguage = other.get(from.otherPart);
        for (char symbol : oneLanguage.symbols(from.oneState).toCharArray()) {
            int otherNext = otherLanguage.step(from.otherState, symbol);
            if (otherNext == PartLanguage.NOWHERE) continue;
            int oneNext = oneLanguage.step(from.oneState, symbol);
            for (boolean oneEnds : oneLanguage.accepts(oneNext) ? new boolean[] {true, false} : new boolean[] {false}) {
                if (!oneEnds && oneLanguage.symbols(oneNext).isEmpty()) continue;
                for (boolean otherEnds :
                        otherLanguage.accepts(otherNext) ? new boolean[] {true, false} : new boolean[] {false}) {
                    if (!otherEnds && otherLanguage.symbols(otherNext).isEmpty()) continue;
                    boolean parted = from.apart || oneEnds != otherEnds;
                    var to = new State(
                            from.onePart + (oneEnds ? 1 : 0),
                            oneEnds ? 0 : oneNext,
                            from.otherPart + (otherEnds ? 1 : 0),
                            otherEnds ? 0 : otherNext,
                            apart && parted);
                    budget.spend(Budget.MOVE);
                    tooLarge |= ++made > MOST_MOVES;
                    moves.get(at).add(new Move(symbol, number(to)));
                }
            }
        }
    }

    private boolean ends(State state) {
        return state.onePart == one.size() && state.otherPart == other.size() && (!apart || state.apart);
    }

    /** Marks every state from which an end can be reached. */
    private void lead() {
        List<List<Integer>> back = new ArrayList<>();
        for (int i = 0; i < states.size(); i++) back.add(new ArrayList<>());
        for (int i = 0; i < states.size(); i++)
            for (Move move : moves.get(i)) back.get(move.to()).add(i);
        Deque<Integer> waiting = new ArrayDeque<>();
        for (int i = 0; i < states.size(); i++) if (ends(states.get(i))) waiting.add(i);
        while (!waiting.isEmpty()) {
            int at = waiting.poll();
            if (leading.get(at)) continue;
            leading.set(at);
            waiting.addAll(back.get(at));
        }
    }

    /** Every text that is of both, or empty where they are more than so many. */
    Optional<Set<String>> allTexts(int most) {
        var found = new LinkedHashSet<String>();
        return gather(0, new StringBuilder(), most, new int[] {most * 20}, found)
                ? Optional.of(found)
                : Optional.empty();
    }

    private boolean gather(int at, StringBuilder text, int most, int[] stepsLeft, Set<String> found) {
        budget.spend(1);
        if (--stepsLeft[0] < 0) return false;
        if (ends(states.get(at))) return !found.add(text.toString()) || found.size() <= most;
        for (Move move : moves.get(at)) {
            if (!leading.get(move.to())) continue;
            text.append(move.symbol());
            if (!gather(move.to(), text, most, stepsLeft, found)) return false;
            text.setLength(text.length() - 1);
        }
        return true;
    }

    /** Some of the texts that are of both, drawn by walks that always reach an end. The same ones each time. */
    Set<String> texts(int most) {
        var found = new LinkedHashSet<String>();
        var random = new Random(most);
        for (int walk = 0; walk < most * 2 && found.size() < most; walk++) found.add(walk(random));
        return found;
    }

    private String walk(Random random) {
        var text = new StringBuilder();
        for (int at = 0; !ends(states.get(at)); ) {
            List<Move> onward = moves.get(at).stream()
                    .filter(move -> leading.get(move.to()))
                    .toList();
            Move move = onward.get(random.nextInt(onward.size()));
            text.append(move.symbol());
            at = move.to();
        }
        return text.toString();
    }
}
