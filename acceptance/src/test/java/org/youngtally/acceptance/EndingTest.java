package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.acceptance.Service.Answer;

/** How a service ends, how it refuses to start, and what watches over it hears meanwhile. */
class EndingTest {
    private static final String SERIES =
            "series: [{ key: part, pattern: \"P{count 7}\", ranges: [{ first: 1, last: 9999999, opens: 2026-01-01 }] }]";

    @TempDir
    private Path folder;

    private Service serve() throws Exception {
        return Service.process(folder.resolve("data"));
    }

    @Test
    void whoWaitsIsAnsweredWhenTheServiceIsAskedToEnd() throws Exception {
        Service service = serve();
        service.apply(SERIES);
        Callable<Optional<Answer>> asks = () -> {
            try {
                return Optional.of(service.post("/api/v1/series/part/allocations", "{\"quantity\":2000}"));
            } catch (IOException tooLate) {
                // The service had closed its door before it read this one: nothing may have been done for it.
                return Optional.empty();
            }
        };
        long served;
        try (var callers = Executors.newVirtualThreadPerTaskExecutor()) {
            List<Future<Optional<Answer>>> waiting =
                    IntStream.range(0, 40).mapToObj(i -> callers.submit(asks)).toList();
            waiting.getFirst().get();
            service.close();
            for (Future<Optional<Answer>> each : waiting)
                each.get().ifPresent(answer -> assertThat(answer.status()).isIn(201, 503));
            served = waiting.stream()
                    .filter(each -> each.resultNow()
                            .filter(answer -> answer.status() == 201)
                            .isPresent())
                    .count();
        }
        assertThat(service.exitCode()).isZero();
        try (Service again = serve()) {
            assertThat(again.post("/api/v1/series/part/allocations", "{}").text("first"))
                    .as("nothing was numbered for a caller who was not answered")
                    .isEqualTo("P%07d".formatted(2000 * served + 1));
        }
    }

    @Test
    void anOpenStreamOfEventsDoesNotHoldTheEndUp() throws Exception {
        Service service = serve();
        try (var stream = service.listen()) {
            service.close();
            assertThat(service.exitCode()).isZero();
        }
    }

    @Test
    void aRefusedStartSaysItsReasonFirstAndAlone() throws Exception {
        try (Service service = serve()) {
            assertThat(Service.refused(folder.resolve("data")))
                    .containsExactly("another process is using the data folder " + folder.resolve("data")
                            + "; stop it, or choose another folder");
        }
    }

    @Test
    void aFileInThePlaceOfTheFolderIsSaidToBeOne() throws Exception {
        Path file = Files.createFile(folder.resolve("file"));
        assertThat(Service.refused(file)).containsExactly("the data folder " + file + " is a file");
    }

    @Test
    void whatWatchesOverTheServiceHearsThatNoNumbersAreGiven() throws Exception {
        try (Service service = serve()) {
            service.apply(SERIES);
            assertThat(service.get("/api/v1/health").status()).isEqualTo(200);
            Files.delete(folder.resolve("data/lock"));
            service.await(() -> service.get("/api/v1/health").status() == 503);
            assertThat(service.get("/api/v1/health/ready").status()).isEqualTo(503);
            assertThat(service.get("/api/v1/health/live").status()).isEqualTo(200);
            assertThat(service.get("/api/v1/series/part").status())
                    .as("what is known can be asked")
                    .isEqualTo(200);
            assertThat(service.post("/api/v1/series/part/allocations", "{}").text("detail"))
                    .contains("data/lock is gone");
        }
    }

    @Test
    void anEmptyDateIsNoDate() throws Exception {
        try (Service service = serve()) {
            service.apply(SERIES);
            Answer answer = service.post("/api/v1/series/part/allocations", "{\"date\":\"\"}");
            assertThat(answer.status()).isEqualTo(400);
            assertThat(answer.text("field")).isEqualTo("date");
        }
    }
}
