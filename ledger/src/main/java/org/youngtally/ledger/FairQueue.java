package org.youngtally.ledger;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.ToLongFunction;

/**
 * What waits for the writer, taken account by account: whoever asks for much waits behind their own, and not everybody
 * behind them. An account has only a share of the places, and of the numbers that are asked for.
 *
 * @param <T> what waits
 */
final class FairQueue<T> {
    /** What an offer came to. */
    enum Offer {
        TAKEN,
        FULL,
        /** The account has its share already. */
        SHARE_TAKEN
    }

    private final int places;
    private final int share;
    private final long weightShare;
    private final ToLongFunction<T> weight;
    private final ReentrantLock lock = new ReentrantLock();
    private final Condition something = lock.newCondition();
    /** Those that wait, by account; the account whose turn it is comes first. */
    private final Map<String, ArrayDeque<T>> waiting = new LinkedHashMap<>();

    private final Map<String, Long> weights = new LinkedHashMap<>();
    private int size;
    private boolean nudged;
    private boolean heavyBefore;

    /**
     * @param places how many may wait
     * @param share how many of one account may
     * @param weightShare how much these may weigh together, unless one alone does
     * @param weight what one weighs: the numbers that it asks for
     */
    FairQueue(int places, int share, long weightShare, ToLongFunction<T> weight) {
        this.places = places;
        this.share = share;
        this.weightShare = weightShare;
        this.weight = weight;
    }

    Offer offer(String account, T one) {
        lock.lock();
        try {
            if (size >= places) return Offer.FULL;
            ArrayDeque<T> own = waiting.computeIfAbsent(account, added -> new ArrayDeque<>());
            long weighs = weights.getOrDefault(account, 0L);
            if (own.size() >= share || !own.isEmpty() && weighs + weight.applyAsLong(one) > weightShare)
                return Offer.SHARE_TAKEN;
            own.add(one);
            weights.put(account, weighs + weight.applyAsLong(one));
            size++;
            something.signal();
            return Offer.TAKEN;
        } finally {
            lock.unlock();
        }
    }

    /**
     * Waits until something waits here, or somebody nudges.
     *
     * @return whether that came in time
     */
    boolean await(long millis) throws InterruptedException {
        lock.lock();
        try {
            long left = TimeUnit.MILLISECONDS.toNanos(millis);
            while (size == 0 && !nudged && left > 0) left = something.awaitNanos(left);
            boolean came = size > 0 || nudged;
            nudged = false;
            return came;
        } finally {
            lock.unlock();
        }
    }

    /** Whoever waits looks up, though there may be nothing to take. */
    void nudge() {
        lock.lock();
        try {
            nudged = true;
            something.signal();
        } finally {
            lock.unlock();
        }
    }

    /**
     * Takes what waits, one of each account in turn; nothing where nothing does. What weighs more than all may is taken
     * alone, and then what does not before the next such.
     *
     * @param most how many at the most
     * @param mostWeight how much they weigh together at the most
     */
    List<T> take(int most, long mostWeight) {
        lock.lock();
        try {
            Optional<String> heavy = waiting.keySet().stream()
                    .filter(account -> weight.applyAsLong(waiting.get(account).peek()) > mostWeight)
                    .findFirst();
            boolean light = waiting.values().stream().anyMatch(own -> weight.applyAsLong(own.peek()) <= mostWeight);
            // What is heavy takes long: it is taken by itself, and whoever came meanwhile is served before the next.
            heavyBefore = heavy.isPresent() && !(light && heavyBefore);
            if (heavyBefore) return List.of(remove(heavy.get()));
            var taken = new ArrayList<T>(Math.min(size, most));
            long weighs = 0;
            boolean more = true;
            while (more && taken.size() < most) {
                more = false;
                for (String account : List.copyOf(waiting.keySet())) {
                    long next = weight.applyAsLong(waiting.get(account).peek());
                    if (taken.size() == most || weighs + next > mostWeight) continue;
                    weighs += next;
                    taken.add(remove(account));
                    more = true;
                }
            }
            return taken;
        } finally {
            lock.unlock();
        }
    }

    /** The account goes behind all others. */
    private T remove(String account) {
        ArrayDeque<T> own = waiting.remove(account);
        T next = own.poll();
        size--;
        long left = weights.remove(account) - weight.applyAsLong(next);
        if (!own.isEmpty()) {
            waiting.put(account, own);
            weights.put(account, left);
        }
        return next;
    }

    /** Takes everything. */
    List<T> drain() {
        lock.lock();
        try {
            var all = new ArrayList<T>(size);
            waiting.values().forEach(all::addAll);
            waiting.clear();
            weights.clear();
            size = 0;
            return all;
        } finally {
            lock.unlock();
        }
    }

    boolean remove(String account, T one) {
        lock.lock();
        try {
            ArrayDeque<T> own = waiting.get(account);
            if (own == null || !own.remove(one)) return false;
            size--;
            weights.merge(account, -weight.applyAsLong(one), Long::sum);
            if (own.isEmpty()) {
                waiting.remove(account);
                weights.remove(account);
            }
            return true;
        } finally {
            lock.unlock();
        }
    }

    boolean isEmpty() {
        lock.lock();
        try {
            return size == 0;
        } finally {
            lock.unlock();
        }
    }
}
