package org.youngtally.printers;

import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Predicate;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.common.PDRectangle;

/** Documents of empty pages, and jobs that are waited for. */
final class Pages {
    private static final long PATIENCE = TimeUnit.SECONDS.toNanos(30);

    private Pages() {}

    static Path of(Path folder, int pages, double width, double height) throws IOException {
        Path file = folder.resolve(pages + " pages.pdf");
        try (var document = new PDDocument()) {
            for (int page = 0; page < pages; page++)
                document.addPage(
                        new PDPage(new PDRectangle((float) (width * 72 / 25.4), (float) (height * 72 / 25.4))));
            document.save(file.toFile());
        }
        return file;
    }

    static JobTicket ticket(double width, double height) {
        return JobTicket.of("label job 12", "ruben", width, height);
    }

    static JobStatus await(Printer printer, int job, Predicate<JobStatus> condition)
            throws PrinterException, TimeoutException {
        long end = System.nanoTime() + PATIENCE;
        JobStatus status = printer.job(job);
        while (!condition.test(status)) {
            if (System.nanoTime() > end) throw new TimeoutException("the job is " + status);
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(20));
            status = printer.job(job);
        }
        return status;
    }
}
