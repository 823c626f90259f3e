package org.youngtally.ledger;

import java.nio.file.Path;
import java.time.Duration;
import java.time.InstantSource;
import java.time.ZoneId;
import java.util.Optional;
import java.util.function.LongSupplier;
import org.youngtally.ledger.copy.CopyPlace;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.FolderDisk;
import org.youngtally.ledger.journal.JournalSizes;

/**
 * Where a ledger keeps its data and what time it goes by.
 *
 * @param data the data folder; one process at a time owns it
 * @param journal the disk that the journal is written to
 * @param storeUrl H2's JDBC address of the tables
 * @param clock what the time is
 * @param zone in which time zone today begins
 * @param machineRun tells one run of the machine from the next; empty where the system does not say
 * @param room how many bytes are left on the disk
 * @param patience how long a start waits that finds a journal without a lock: longer than one write to it takes
 * @param copy where a copy of the journal is kept; absent for none
 * @param sizes how the journal is cut
 */
public record LedgerOptions(
        Path data,
        Disk journal,
        String storeUrl,
        InstantSource clock,
        ZoneId zone,
        String machineRun,
        LongSupplier room,
        Duration patience,
        Optional<CopyPlace> copy,
        JournalSizes sizes) {
    private static final Duration USUAL_PATIENCE = Duration.ofSeconds(10);

    public static LedgerOptions in(Path data) {
        Path folder = data.toAbsolutePath().normalize();
        return new LedgerOptions(
                folder,
                new FolderDisk(folder.resolve("journal")),
                "jdbc:h2:retry:" + folder.resolve("tables").resolve("tally") + ";DB_CLOSE_ON_EXIT=FALSE",
                InstantSource.system(),
                ZoneId.systemDefault(),
                MachineRun.current(),
                () -> folder.toFile().getUsableSpace(),
                USUAL_PATIENCE,
                Optional.empty(),
                JournalSizes.USUAL);
    }

    public LedgerOptions withClock(InstantSource newClock) {
        return new LedgerOptions(data, journal, storeUrl, newClock, zone, machineRun, room, patience, copy, sizes);
    }

    public LedgerOptions withZone(ZoneId newZone) {
        return new LedgerOptions(data, journal, storeUrl, clock, newZone, machineRun, room, patience, copy, sizes);
    }

    public LedgerOptions withJournal(Disk newJournal) {
        return new LedgerOptions(data, newJournal, storeUrl, clock, zone, machineRun, room, patience, copy, sizes);
    }

    public LedgerOptions withStoreUrl(String newStoreUrl) {
        return new LedgerOptions(data, journal, newStoreUrl, clock, zone, machineRun, room, patience, copy, sizes);
    }

    public LedgerOptions withMachineRun(String newRun) {
        return new LedgerOptions(data, journal, storeUrl, clock, zone, newRun, room, patience, copy, sizes);
    }

    public LedgerOptions withRoom(LongSupplier newRoom) {
        return new LedgerOptions(data, journal, storeUrl, clock, zone, machineRun, newRoom, patience, copy, sizes);
    }

    public LedgerOptions withPatience(Duration newPatience) {
        return new LedgerOptions(data, journal, storeUrl, clock, zone, machineRun, room, newPatience, copy, sizes);
    }

    public LedgerOptions withCopy(Optional<CopyPlace> newCopy) {
        return new LedgerOptions(data, journal, storeUrl, clock, zone, machineRun, room, patience, newCopy, sizes);
    }

    public LedgerOptions withSizes(JournalSizes newSizes) {
        return new LedgerOptions(data, journal, storeUrl, clock, zone, machineRun, room, patience, copy, newSizes);
    }

    /** The folder of H2's files. */
    Path tables() {
        return data.resolve("tables");
    }
}
