package org.youngtally.service.demo;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;

/** The demo's time: it begins on 2 March 2026 and runs on from there, also over restarts on the same folder. */
final class DemoClock {
    private static final Instant BEGIN = Instant.parse("2026-03-02T09:00:00Z");

    private DemoClock() {}

    static Clock of(Path folder, ZoneId zone) throws IOException {
        Path file = folder.resolve(DemoCommand.CLOCK);
        Duration offset;
        if (Files.exists(file)) {
            offset = Duration.parse(Files.readString(file).strip());
        } else {
            offset = Duration.between(Instant.now(), BEGIN);
            Files.createDirectories(folder);
            Files.writeString(file, offset.toString());
        }
        return Clock.offset(Clock.system(zone), offset);
    }
}
