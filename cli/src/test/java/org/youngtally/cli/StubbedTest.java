package org.youngtally.cli;

import java.io.IOException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;

/** Commands on a service that answers as it was told; each test has one of its own. */
abstract class StubbedTest {
    StubService service;

    @BeforeEach
    void start() throws IOException {
        service = new StubService();
    }

    @AfterEach
    void stop() {
        service.close();
    }
}
