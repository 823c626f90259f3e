package org.youngtally.cli;

import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.youngtally.cli.NumberedList.Stamp;

/** Keeps lists numbered until it is stopped. */
final class ListWatch {
    /** A file that has not changed for so long is not being written any more. */
    private static final long QUIET_MILLIS = 700;

    private static final long LOOK_MILLIS = 350;
    /** After a failure it waits longer each time, and no longer than this. */
    private static final long LONGEST_WAIT_MILLIS = 30_000;

    private final List<NumberedList> lists;
    private final Output output;
    private final Map<NumberedList, State> states = new HashMap<>();

    private static final class State {
        private Stamp seen;
        private long seenAt;
        /** What the file looked like when it was numbered last. */
        private Stamp done;

        private long waitUntil;
        private long wait = LOOK_MILLIS;
        private String failure = "";
    }

    ListWatch(List<NumberedList> lists, Output output) {
        this.lists = lists;
        this.output = output;
    }

    int run() throws InterruptedException {
        output.note("Watching " + Output.counted(lists.size(), "table") + ". Stop with Control-C.");
        while (true) {
            for (NumberedList list : lists) look(list, states.computeIfAbsent(list, added -> new State()));
            Thread.sleep(LOOK_MILLIS);
        }
    }

    private void look(NumberedList list, State state) {
        long now = System.nanoTime() / 1_000_000;
        try {
            Stamp stamp = list.stamp();
            if (!stamp.equals(state.seen)) {
                state.seen = stamp;
                state.seenAt = now;
            }
            if (stamp.equals(state.done) || now - state.seenAt < QUIET_MILLIS || now < state.waitUntil) return;
            state.done = list.renew().orElse(null);
            state.wait = LOOK_MILLIS;
            state.failure = "";
        } catch (IOException | NotReachable | Refused e) {
            // An editor takes a file away for a moment when it saves, and a service is started again.
            state.wait = Math.min(LONGEST_WAIT_MILLIS, 2 * state.wait);
            state.waitUntil = now + state.wait;
            String failure = list.file() + ": " + e.getMessage();
            if (!failure.equals(state.failure)) output.note(failure);
            state.failure = failure;
        }
    }
}
