package org.youngtally.bench.drill;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Map;

/** What is done to a service that gives numbers, and what it must come to. Each takes half a minute or so. */
enum Drill {
    KILL("the process is killed under load and started again") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            scene.service().kill();
            scene.service().start(Map.of());
            scene.tell(
                    "resumes",
                    "%.1f s after it was started again"
                            .formatted(scene.callers().awaitNumber()));
        }
    },
    DISK_FULL("the disk fills up to the last byte, and is cleared") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            Path filler = scene.disk().resolve("filler");
            fill(filler);
            scene.noticed("told");
            // Whatever the service gives up of its reserve is taken as well.
            fill(scene.disk().resolve("more"));
            scene.asked();
            Files.delete(filler);
            scene.tell(
                    "resumes",
                    "%.1f s after there was room".formatted(scene.callers().awaitNumber()));
        }
    },
    READ_ONLY("every write of the service fails, as on a read-only disk, and then works again") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            writes(scene, "0");
            scene.noticed("told");
            scene.asked();
            writes(scene, "unlimited");
            scene.tell(
                    "resumes",
                    "%.1f s after it could be written".formatted(scene.callers().awaitNumber()));
        }
    },
    PULLED_DISK("the file system is removed under the service") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            Path kept = scene.folder().resolve("kept");
            Files.createDirectories(kept);
            Instance.run(List.of("mount", "--bind", scene.disk().toString(), kept.toString()));
            Instance.run(List.of("umount", "-l", scene.disk().toString()));
            scene.noticed("told");
            scene.service().stop();
            Instance.run(
                    List.of("mount", "--bind", kept.toString(), scene.disk().toString()));
            scene.service().start(Map.of());
            scene.tell(
                    "resumes",
                    "%.1f s after it was back and the service started"
                            .formatted(scene.callers().awaitNumber()));
        }
    },
    DAMAGED_LAST_LINE("a bit of the last answered line turns over after a kill") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            scene.service().kill();
            // Behind its line feed there may be a part of a line that was never answered.
            String text = Files.readString(scene.segment());
            long place = text.lastIndexOf('\n') - 150;
            flip(scene, place);
            scene.service().start(Map.of());
            scene.stands();
            flip(scene, place);
            scene.startedAgain();
        }
    },
    DAMAGED_MIDDLE("a bit in the middle of the journal turns over after a kill") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            scene.service().kill();
            long place = Files.size(scene.segment()) / 2;
            flip(scene, place);
            scene.service().start(Map.of());
            scene.stands();
            flip(scene, place);
            scene.startedAgain();
        }
    },
    DELETED_LOCK("the lock is deleted, and a second process is started on the folder") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            Files.delete(scene.service().data().resolve("lock"));
            scene.noticed("told");
            var second = new Instance(
                    scene.jar(), scene.service().data(), scene.folder().resolve("second.log"));
            scene.tell("a second process is told", second.startRefused());
            scene.service().stop();
            scene.startedAgain();
        }
    },
    JOURNAL_UNLINKED("the journal's file is deleted while it is written to, and put back from a copy") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            Path kept = scene.folder().resolve("kept.jsonl");
            Path segment = scene.segment();
            Files.createLink(kept, segment);
            Files.delete(segment);
            scene.noticed("told");
            scene.service().stop();
            Files.move(kept, segment);
            scene.startedAgain();
        }
    },
    CLOCK_BACK("the clock is set back two days while the service runs, and 400 days before a start") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            scene.setClock("-2d");
            Instance.awaitTrue("the remark", () -> scene.status().contains("the clock was set back"));
            scene.tell("status", Text.of(scene.status(), "remarks"));
            scene.startedWithClock("-400d");
        }
    },
    CLOCK_AHEAD("the clock is 4,000 days ahead at a start") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            scene.startedWithClock("+4000d");
        }
    },
    OLD_COPY("an older copy of the folder is put back, beside a journal copy that goes on") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            scene.withCopy();
            Path old = scene.kept();
            scene.service().kill();
            scene.replacedBy(old);
            scene.service().start(Map.of());
            scene.tell("told at the start", scene.service().told("the journal lacked "));
            scene.resumes();
        }
    },
    STALE_RECEIPT("an older copy of the folder is put back, and a caller shows the receipt of a number that it lacks") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            Path old = scene.kept();
            String receipt = scene.service().receipt();
            scene.callers().pause();
            scene.service().stop();
            Path newest = scene.replacedBy(old);
            scene.service().start(Map.of());
            scene.service().show(receipt);
            scene.noticed("told");
            scene.callers().goOn();
            scene.asked();
            scene.service().stop();
            Drills.remove(scene.service().data());
            Files.move(newest, scene.service().data());
            scene.startedAgain();
        }
    },
    JOURNAL_DISK_LOST("the disk of the journal is lost, and the copy has it") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            scene.withCopy();
            scene.service().kill();
            Drills.remove(scene.service().data().resolve("journal"));
            scene.service().start(Map.of());
            scene.tell("told at the start", scene.service().told("the journal lacked "));
            scene.resumes();
        }
    },
    COPY_DISK_LOST("the disk of the journal copy is lost, and is back") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            scene.withCopy();
            Path away = scene.folder().resolve("away");
            Files.move(scene.copy(), away);
            Files.createFile(scene.copy());
            scene.noticed("told");
            scene.asked();
            Files.delete(scene.copy());
            Files.move(away, scene.copy());
            scene.tell(
                    "resumes",
                    "%.1f s after it was back".formatted(scene.callers().awaitNumber()));
        }
    },
    RESTORE_FROM_COPY("the data folder is lost, and restored from a backup and the journal copy") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            scene.withCopy();
            scene.backedUp();
            scene.goesOn();
            scene.service().kill();
            scene.restored("--journal-copy", scene.copy().toString());
            scene.service().start(Map.of());
            scene.resumes();
        }
    },
    RESTORE_BY_HEAD("the data folder is lost, and restored from a backup that has the newest head noted elsewhere") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            scene.callers().pause();
            scene.backedUp();
            String head = Text.of(scene.status(), "head");
            scene.service().kill();
            scene.restored("--head", head);
            scene.callers().goOn();
            scene.service().start(Map.of());
            scene.resumes();
        }
    },
    RESTORE_BY_STATEMENT("the data folder is lost, and restored from a backup alone") {
        @Override
        void run(Scene scene) throws IOException, InterruptedException {
            scene.backedUp();
            scene.goesOn();
            scene.callers().pause();
            scene.service().kill();
            scene.restored();
            scene.service().start(Map.of());
            scene.noticed("told");
            scene.stated();
            scene.callers().goOn();
            scene.resumes();
        }
    };

    private final String what;

    Drill(String what) {
        this.what = what;
    }

    /** In a line. */
    String what() {
        return what;
    }

    String word() {
        return name().toLowerCase(java.util.Locale.ROOT).replace('_', '-');
    }

    boolean needsADisk() {
        return this == DISK_FULL || this == PULLED_DISK;
    }

    abstract void run(Scene scene) throws IOException, InterruptedException;

    private static void fill(Path file) throws IOException {
        byte[] piece = new byte[1 << 12];
        try (var out = Files.newOutputStream(file, StandardOpenOption.CREATE, StandardOpenOption.APPEND)) {
            while (true) out.write(piece);
        } catch (IOException full) {
            if (!String.valueOf(full.getMessage()).contains("No space left")) throw full;
        }
    }

    /** A file system with open files cannot be mounted anew; a limit of the process has the same effect. */
    private static void writes(Scene scene, String most) throws IOException, InterruptedException {
        Instance.run(List.of("prlimit", "--pid", Long.toString(scene.service().pid()), "--fsize=" + most + ":"));
    }

    private static void flip(Scene scene, long place) throws IOException {
        try (var file = new RandomAccessFile(scene.segment().toFile(), "rw")) {
            file.seek(place);
            int found = file.read();
            file.seek(place);
            file.write(found ^ 1);
        }
    }
}
