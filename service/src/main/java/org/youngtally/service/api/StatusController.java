package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Status;
import org.youngtally.ledger.receipt.Receipt;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.access.OpenToAll;
import org.youngtally.service.access.SignedIn;
import org.youngtally.service.backup.Backups;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/** How the service stands, for people and for what watches over it. */
@RestController
@RequestMapping(Api.V1)
class StatusController {
    private final Ledger ledger;
    private final Backups backups;

    StatusController(Ledger ledger, Backups backups) {
        this.ledger = ledger;
        this.backups = backups;
    }

    /**
     * How the ledger stands.
     *
     * @param running whether numbers are allocated
     * @param stopped why none are allocated until an administrator acts; absent otherwise
     * @param paused why none are allocated for now; absent otherwise
     * @param opening what was found and done when the ledger was opened
     * @param remarks what people should know of how it runs
     * @param rollback whether it is not known that the ledger is the newest
     * @param receipt of the newest entry; absent before the first
     * @param backup the newest one; absent where there is none, or where it is not in its place
     * @param backupFailure why the one that was tried last was not made
     * @param journalCopy the folder of the journal's copy; absent where none is kept
     * @param journalCopyPolicy stop or go-on: what is done while it cannot be written
     * @param proof how far the journal is proved that the start trusted; absent once all of it is
     */
    record StatusView(
            boolean running,
            @Nullable String stopped,
            @Nullable String paused,
            String head,
            LocalDate today,
            String zone,
            List<String> opening,
            List<String> remarks,
            boolean rollback,
            @Nullable String receipt,
            BackupController.@Nullable BackupView backup,
            @Nullable String backupFailure,
            @Nullable String journalCopy,
            @Nullable String journalCopyPolicy,
            @Nullable JournalProofView proof) {}

    /**
     * How far the journal is proved that the start trusted, by its checkpoints.
     *
     * @param reached the last entry that is proved
     * @param upTo the last entry that is to be
     */
    record JournalProofView(long reached, long upTo) {}

    @GetMapping("/status")
    @SignedIn
    @Operation(
            operationId = "showStatus",
            summary = "Whether numbers are allocated, the newest entry, and what was done when the ledger was opened")
    StatusView status() {
        Status status = ledger.status();
        return new StatusView(
                status.running(),
                status.stopped().isEmpty() ? null : status.stopped(),
                status.paused().isEmpty() ? null : status.paused(),
                status.head().toString(),
                ledger.today(),
                ledger.zone().getId(),
                status.opening(),
                status.remarks(),
                ledger.rollback().isPresent(),
                ledger.receipt().map(Receipt::toString).orElse(null),
                backups.newest()
                        .map(kept -> BackupController.BackupView.of(kept, ledger.now()))
                        .orElse(null),
                backups.failure().orElse(null),
                ledger.journalCopy().map(copy -> copy.disk().place()).orElse(null),
                ledger.journalCopy().map(copy -> copy.disk().policy().word()).orElse(null),
                status.proof()
                        .map(proof -> new JournalProofView(proof.reached(), proof.upTo()))
                        .orElse(null));
    }

    /** @param running whether numbers are allocated */
    record HealthView(boolean running) {}

    @GetMapping("/health")
    @OpenToAll
    @Operation(
            operationId = "showHealth",
            summary =
                    "Whether numbers are allocated: 200 while they are, 503 while they are not; nothing else is told without signing in")
    ResponseEntity<HealthView> health() {
        boolean running = ledger.status().running();
        if (running) return ResponseEntity.ok(new HealthView(true));
        return ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE)
                .header(HttpHeaders.RETRY_AFTER, "1")
                .body(new HealthView(false));
    }

    @GetMapping("/health/ready")
    @OpenToAll
    @Operation(operationId = "showReadiness", summary = "The same for schedulers: whether to send requests here")
    ResponseEntity<HealthView> ready() {
        return health();
    }

    @GetMapping("/health/live")
    @OpenToAll
    @Operation(
            operationId = "showLiveness",
            summary =
                    "Whether the service answers at all: 200 also while no numbers are allocated, since a restart would not help")
    HealthView live() {
        return new HealthView(ledger.status().running());
    }

    /** @param date the date that the clock says, and that it is */
    record DateRequest(@Nullable String date) {}

    @PostMapping("/clock/confirmations")
    @Needs(value = Right.DEFINE, at = At.ALL)
    @Operation(
            operationId = "confirmDate",
            summary =
                    "Confirm the date of the service's clock after a start that lies more than a day from the ledger's last instant; allocation then resumes")
    StatusView confirm(@RequestBody DateRequest request) {
        LocalDate date = Requests.date(request.date())
                .orElseThrow(() -> new Problem(Type.MALFORMED, "The date is missing.")
                        .field("date", "today's date, such as 2026-01-31"));
        if (!ledger.confirmDate(date))
            throw new Problem(
                            Type.MALFORMED,
                            "The service's clock says " + ledger.today() + ", not " + date + ". Nothing was confirmed.")
                    .field("date", "today's date, if the clock agrees; otherwise set the clock");
        return status();
    }
}
