package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.backup.Backup;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.backup.Backups;
import org.youngtally.service.web.Problem;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Backups of the ledger, in the folder that the service was started with. */
@RestController
@RequestMapping(Api.V1)
class BackupController {
    private static final Logger LOG = LoggerFactory.getLogger(BackupController.class);

    private final Ledger ledger;
    private final Backups backups;
    private final HeavyWork work;

    BackupController(Ledger ledger, Backups backups, HeavyWork work) {
        this.ledger = ledger;
        this.backups = backups;
        this.work = work;
    }

    /**
     * A backup that was opened and audited.
     *
     * @param place its folder, on the service's machine
     * @param head the newest entry that it has
     * @param age since when it was made, as an ISO 8601 duration
     * @param files how many files of records it has
     * @param damaged how many of them are not what was kept
     * @param secret whether it has the secret of the data folder, under the passphrase
     * @param scheduled whether the schedule made it, and deletes it again
     */
    record BackupView(
            String place,
            String head,
            Instant at,
            Duration age,
            long files,
            long damaged,
            boolean secret,
            boolean scheduled) {
        static BackupView of(Backups.Kept kept, Instant now) {
            return new BackupView(
                    kept.place().toString(),
                    kept.about().head().toString(),
                    kept.about().at(),
                    Duration.between(kept.about().at(), now),
                    kept.about().files(),
                    kept.about().damaged(),
                    kept.about().secret(),
                    kept.about().scheduled());
        }
    }

    @GetMapping("/backups")
    @Needs(value = Right.DEFINE, at = At.ALL)
    @Operation(operationId = "listBackups", summary = "The backups in the service's folder for them, the newest first")
    List<BackupView> list() {
        try {
            Instant now = ledger.now();
            return backups.all().stream().map(kept -> BackupView.of(kept, now)).toList();
        } catch (IOException e) {
            throw failed(e);
        }
    }

    @PostMapping("/backups")
    @Needs(value = Right.DEFINE, at = At.ALL)
    @Operation(
            operationId = "makeBackup",
            summary = "Make a backup while numbers are allocated; it is opened and audited before this is answered")
    ResponseEntity<BackupView> make(Caller caller) {
        if (backups.plan().folder().isEmpty())
            throw new Problem(Problem.Type.NO_BACKUPS, "The service has no folder for backups.");
        try {
            Backup.Made made = work.run(Sort.BACKUP, caller.name(), backups::make);
            return ResponseEntity.status(HttpStatus.CREATED)
                    .body(BackupView.of(new Backups.Kept(made.place(), made.about()), ledger.now()));
        } catch (IOException e) {
            throw failed(e);
        }
    }

    private static Problem failed(IOException e) {
        LOG.error("a backup failed", e);
        return new Problem(Problem.Type.BACKUP_FAILED, "No backup was made: " + e.getMessage() + ".");
    }
}
