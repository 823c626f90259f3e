package org.youngtally.service.backup;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.backup.Backup;
import org.youngtally.ledger.backup.BackupAbout;

/** Makes backups of the running ledger, one at a time: when somebody asks, and by the plan. */
@Component
public final class Backups implements DisposableBean {
    private static final Logger LOG = LoggerFactory.getLogger(Backups.class);
    private static final long LOOK_SECONDS = 30;
    /** A backup that failed is tried again after this long. */
    private static final Duration AGAIN = Duration.ofMinutes(10);

    private final Ledger ledger;
    private final BackupPlan plan;
    private final ScheduledExecutorService clock = Executors.newSingleThreadScheduledExecutor(Thread.ofPlatform()
            .daemon()
            .name("backups")
            .priority(Thread.MIN_PRIORITY)
            .factory());
    private volatile Optional<String> failure = Optional.empty();
    private Instant triedAt = Instant.EPOCH;

    Backups(Ledger ledger, BackupPlan plan) {
        this.ledger = ledger;
        this.plan = plan;
    }

    /** A backup in its folder. */
    public record Kept(Path place, BackupAbout about) {}

    public BackupPlan plan() {
        return plan;
    }

    @EventListener(ApplicationReadyEvent.class)
    void begin() {
        if (plan.every().isPresent()) clock.scheduleWithFixedDelay(this::look, 1, LOOK_SECONDS, TimeUnit.SECONDS);
    }

    private void look() {
        Instant now = ledger.now();
        if (Duration.between(triedAt, now).compareTo(AGAIN) < 0
                || ledger.status().head().seq() == 0
                || !isDue(now)) return;
        triedAt = now;
        try {
            Backup.Made made = take(true);
            LOG.info(
                    "backup {}, up to entry {}",
                    made.place(),
                    made.about().head().seq());
            List<Path> deleted =
                    Backup.tidy(plan.folder().orElseThrow(), made.about().ledger(), plan.keep());
            if (!deleted.isEmpty()) LOG.info("{} older backups were deleted", deleted.size());
            triedAt = Instant.EPOCH;
        } catch (IOException | RuntimeException e) {
            LOG.error("the backup that was due could not be made", e);
        }
    }

    /** Whether the newest of the folder is too old; one that is kept elsewhere does not count. */
    private boolean isDue(Instant now) {
        try {
            return all().stream()
                    .findFirst()
                    .filter(kept -> Duration.between(kept.about().at(), now)
                                    .compareTo(plan.every().orElseThrow())
                            < 0)
                    .isEmpty();
        } catch (IOException e) {
            LOG.warn("the backups in {} cannot be looked at", plan.folder().orElseThrow(), e);
            return true;
        }
    }

    /** Makes one, opens it and audits it. */
    public Backup.Made make() throws IOException {
        return take(false);
    }

    private synchronized Backup.Made take(boolean scheduled) throws IOException {
        try {
            Backup.Made made = new Backup(
                            ledger.data(), ledger.journalDisk(), ledger.status().head())
                    .into(
                            plan.folder().orElseThrow(),
                            plan.passphrase(),
                            ledger.now(),
                            scheduled,
                            Backup.Tables.BESIDE);
            failure = Optional.empty();
            return made;
        } catch (IOException | RuntimeException e) {
            failure = Optional.of(String.valueOf(e.getMessage()));
            throw e;
        }
    }

    /** All that are in the folder, the newest first. */
    public List<Kept> all() throws IOException {
        if (plan.folder().isEmpty()) return List.of();
        var kept = new ArrayList<Kept>();
        for (Path place : Backup.in(plan.folder().get())) kept.add(new Kept(place, BackupAbout.in(place)));
        return kept;
    }

    /** The newest of this ledger, whoever made it; absent where there is none, or where it is away. */
    public Optional<Kept> newest() {
        try {
            Optional<Path> place = Backup.last(ledger.data());
            return place.isEmpty() ? Optional.empty() : Optional.of(new Kept(place.get(), BackupAbout.in(place.get())));
        } catch (IOException e) {
            LOG.debug("the newest backup cannot be looked at", e);
            return Optional.empty();
        }
    }

    /** Why the one that was tried last was not made; absent where it was. */
    public Optional<String> failure() {
        return failure;
    }

    @Override
    public void destroy() throws InterruptedException {
        clock.shutdownNow();
        clock.awaitTermination(2, TimeUnit.SECONDS);
    }
}
