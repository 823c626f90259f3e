package org.youngtally.service.body;

import java.util.HashMap;
import java.util.Map;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/**
 * The memory that the bodies of all requests share while they are read and worked on: an eighth of the heap, and for
 * each account, or source of strangers, a quarter of that. One body alone is always let in.
 */
@Component
final class BodyMemory {
    private static final int PART_OF_HEAP = 8;
    private static final int PART_OF_ONE = 4;

    private final long most;
    private final Map<String, Long> held = new HashMap<>();
    private long all;

    @Autowired
    BodyMemory() {
        this(Runtime.getRuntime().maxMemory() / PART_OF_HEAP);
    }

    BodyMemory(long most) {
        this.most = most;
    }

    /** @return whether there is room */
    synchronized boolean take(String who, long bytes) {
        long own = held.getOrDefault(who, 0L);
        if (all > 0 && all + bytes > most || own > 0 && own + bytes > most / PART_OF_ONE) return false;
        all += bytes;
        held.put(who, own + bytes);
        return true;
    }

    synchronized void giveBack(String who, long bytes) {
        all -= bytes;
        held.computeIfPresent(who, (of, own) -> own > bytes ? own - bytes : null);
    }
}
