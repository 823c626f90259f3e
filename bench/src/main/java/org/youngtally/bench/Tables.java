package org.youngtally.bench;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.youngtally.core.inspection.BySeries;
import org.youngtally.core.inspection.ColumnInspector;
import org.youngtally.core.inspection.Inspection;
import org.youngtally.core.inspection.Numbers;
import org.youngtally.core.reading.SeriesReader;
import org.youngtally.core.series.DraftCheck;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.core.text.Comparison;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.table.TableFile;

/** Tables from before, merely read and inspected in turn; each figure is the best of three. */
final class Tables {
    private static final int ROUNDS = 3;
    private static final int ROWS = 1_000_000;
    private static final int SHEET_ROWS = 100_000;
    private static final Random RANDOM = new Random(1886);

    private Tables() {}

    interface Work {
        void run() throws IOException, UnreadableDocument;
    }

    public static void main(String[] args) throws IOException, UnreadableDocument {
        Path folder = Files.createTempDirectory("youngtally-bench-");
        Path csv = folder.resolve("invoices.csv");
        Path workbook = folder.resolve("invoices.xlsx");
        try {
            try (BufferedWriter out = Files.newBufferedWriter(csv)) {
                out.write("number,name,town,dated,amount,note\n");
                for (int i = 1; i <= ROWS; i++) out.write(row(i));
            }
            writeWorkbook(workbook);
            System.out.println("| what | s | ratio |\n|---|--:|---|");
            measure("%,d rows of CSV, %,d MB".formatted(ROWS, Files.size(csv) / 1_000_000), csv);
            new Repairs(csv, folder.resolve("data")).measure();
            measure("%,d rows of XLSX, %,d MB".formatted(SHEET_ROWS, Files.size(workbook) / 1_000_000), workbook);
        } finally {
            Files.deleteIfExists(csv);
            Files.deleteIfExists(workbook);
            Repairs.clear(folder);
        }
    }

    /** One number in a hundred is not as it should be: blank, there before, or with a typing error. */
    private static String number(int i) {
        return switch (RANDOM.nextInt(400)) {
            case 0 -> "";
            case 1 -> "LW26-%07d".formatted(1 + RANDOM.nextInt(i));
            case 2 -> "LW26-%d".formatted(i);
            case 3 -> "LW26-O%06d".formatted(i % 1_000_000);
            default -> "LW26-%07d".formatted(i);
        };
    }

    private static String row(int i) {
        return number(i) + ",\"Parish, the " + i % 4_001 + "th\",Low Fell,2026-" + "%02d".formatted(1 + i % 12) + "-02,"
                + i % 997 + ".50,kept in the old book\n";
    }

    private static void writeWorkbook(Path file) throws IOException {
        try (OutputStream out = Files.newOutputStream(file);
                var workbook = new Workbook(out, "bench", "1.0")) {
            Worksheet sheet = workbook.newWorksheet("Invoices");
            sheet.value(0, 0, "number");
            sheet.value(0, 1, "name");
            for (int i = 1; i <= SHEET_ROWS; i++) {
                sheet.value(i, 0, number(i));
                sheet.value(i, 1, "Parish " + i % 4_001);
            }
        }
    }

    private static void measure(String what, Path file) throws IOException, UnreadableDocument {
        double read = Double.MAX_VALUE;
        double inspected = Double.MAX_VALUE;
        for (int round = 0; round < ROUNDS; round++) {
            read = Math.min(read, seconds(() -> open(file).read((line, cells) -> true)));
            inspected = Math.min(inspected, seconds(() -> inspect(file)));
        }
        System.out.printf("| %s, read | %.2f | |%n", what, read);
        System.out.printf("| the same, inspected by a series | %.2f | %.1f × read |%n", inspected, inspected / read);
    }

    static double seconds(Work work) throws IOException, UnreadableDocument {
        long begin = System.nanoTime();
        work.run();
        return (System.nanoTime() - begin) / 1e9;
    }

    private static TableFile open(Path file) throws IOException, UnreadableDocument {
        return TableFile.open(file, file.getFileName().toString(), Optional.of(StandardCharsets.UTF_8.name()));
    }

    /** The series of the numbers in the tables. */
    static SeriesDraft invoices(String key) {
        return SeriesDraft.of(key, (key.equals("invoice") ? "LW" : "XW") + "{date yy}-{count 7}")
                .with(SeriesProperties.NAMESPACE, key)
                .with(SeriesProperties.RESTARTS, List.of("year"))
                .with(SeriesProperties.RANGES, List.of(new RangeDraft(1L, 9_999_999L, null, "2026-01-01", null, null)));
    }

    private static void inspect(Path file) throws IOException, UnreadableDocument {
        Series series = DraftCheck.of(invoices("invoice")).series().orElseThrow();
        Numbers numbers = new BySeries(List.of(
                new SeriesReader(series, Fields.of(series, key -> Optional.empty()), LocalDate.of(2026, 3, 2))));
        TableFile table = open(file);
        var inspector = new ColumnInspector(table.columns(), 0, numbers, Comparison.NEWEST);
        table.read((line, cells) -> {
            inspector.row(line, cells);
            return true;
        });
        if (inspector.needsSecondPass())
            table.read((line, cells) -> {
                inspector.again(line, cells);
                return true;
            });
        Inspection found = inspector.found();
        if (found.duplicates().numbers() == 0) throw new IllegalStateException("the table has duplicates");
    }
}
