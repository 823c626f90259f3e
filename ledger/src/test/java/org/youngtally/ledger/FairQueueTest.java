package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.youngtally.ledger.FairQueue.Offer;

class FairQueueTest {
    private record Act(String by, int number, long weight) {}

    private final FairQueue<Act> queue = new FairQueue<>(10, 6, 500, Act::weight);

    private Offer offer(String by, int number, long weight) {
        return queue.offer(by, new Act(by, number, weight));
    }

    private List<String> taken(int most, long mostWeight) {
        return queue.take(most, mostWeight).stream()
                .map(act -> act.by() + act.number())
                .toList();
    }

    @Test
    void oneOfEachAccountIsTakenInTurn() throws Exception {
        for (int i = 1; i <= 3; i++) offer("a", i, 1);
        offer("b", 1, 1);
        offer("c", 1, 1);
        assertThat(taken(10, 100)).containsExactly("a1", "b1", "c1", "a2", "a3");
    }

    @Test
    void whoHasHadATurnComesLastInTheNextBatch() throws Exception {
        offer("a", 1, 1);
        offer("a", 2, 1);
        offer("b", 1, 1);
        assertThat(List.of(taken(1, 100), taken(1, 100), taken(1, 100)))
                .containsExactly(List.of("a1"), List.of("b1"), List.of("a2"));
    }

    @Test
    void whatWeighsMuchLeavesRoomForWhatDoesNot() throws Exception {
        offer("a", 1, 80);
        offer("a", 2, 80);
        offer("b", 1, 1);
        assertThat(taken(10, 100)).containsExactly("a1", "b1");
    }

    @Test
    void whatWeighsMoreThanAllMayIsTakenWhenItsTurnComes() throws Exception {
        offer("a", 1, 400);
        offer("b", 1, 1);
        assertThat(taken(10, 100)).containsExactly("a1");
    }

    @Test
    void whoComesMeanwhileIsServedBeforeTheNextThatWeighsSoMuch() throws Exception {
        offer("a", 1, 200);
        offer("a", 2, 200);
        taken(10, 100);
        offer("b", 1, 1);
        assertThat(List.of(taken(10, 100), taken(10, 100))).containsExactly(List.of("b1"), List.of("a2"));
    }

    @Test
    void anAccountHasAShareOfThePlaces() {
        for (int i = 1; i <= 6; i++) offer("a", i, 1);
        assertThat(List.of(offer("a", 7, 1), offer("b", 1, 1))).containsExactly(Offer.SHARE_TAKEN, Offer.TAKEN);
    }

    @Test
    void anAccountHasAShareOfTheWeight() {
        offer("a", 1, 300);
        assertThat(List.of(offer("a", 2, 300), offer("b", 1, 300))).containsExactly(Offer.SHARE_TAKEN, Offer.TAKEN);
    }

    @Test
    void oneAloneMayWeighMoreThanAShare() {
        assertThat(offer("a", 1, 10_000)).isEqualTo(Offer.TAKEN);
    }

    @Test
    void aFullQueueIsFullForEverybody() {
        IntStream.rangeClosed(1, 10).forEach(i -> offer("a" + i, i, 1));
        assertThat(offer("b", 1, 1)).isEqualTo(Offer.FULL);
    }

    @Test
    void aShareIsFreeAgainOnceItWasTaken() throws Exception {
        for (int i = 1; i <= 6; i++) offer("a", i, 1);
        taken(1, 100);
        assertThat(offer("a", 7, 1)).isEqualTo(Offer.TAKEN);
    }

    @Test
    void nothingIsLostOfWhatIsDrained() {
        for (int i = 1; i <= 3; i++) offer("a", i, 1);
        offer("b", 1, 1);
        assertThat(queue.drain()).hasSize(4);
    }
}
