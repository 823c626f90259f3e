package org.youngtally.service.closing;

import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import org.youngtally.service.paper.Paper;

/** A statement as pages to be signed, A4, in PDF. */
public final class StatementPage {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss", Locale.ROOT);

    private final Paper paper;
    private final Statement statement;
    private final ZoneId zone;

    private StatementPage(Paper paper, Statement statement, ZoneId zone) {
        this.paper = paper;
        this.statement = statement;
        this.zone = zone;
    }

    /**
     * @param zone in which its times are told
     * @return the file's bytes
     */
    public static byte[] of(Statement statement, ZoneId zone) throws IOException {
        String foot = "Young Tally · prove it with: youngtally audit --head "
                + statement.head().substring(0, Math.min(22, statement.head().length()))
                + "…   (the head above in full)";
        return Paper.of(
                "Statement of a closed period, " + statement.key() + ", " + statement.from() + " to " + statement.to(),
                statement.at(),
                foot,
                paper -> new StatementPage(paper, statement, zone).write());
    }

    private void write() throws IOException {
        paper.line(Paper.LEFT, 17, "Statement of a closed period");
        paper.space(12);
        paper.fact(
                "Closed",
                "the " + statement.scope() + " " + statement.key() + ", " + statement.from() + " to " + statement.to()
                        + ", both included");
        paper.fact("By", statement.by() + ", " + time(statement.at()) + ", entry " + statement.closing());
        if (statement.note() != null) paper.fact("Note", statement.note());
        paper.fact(
                "Numbers",
                "issued " + statement.issued() + ", void "
                        + statement.lanes().stream()
                                .mapToLong(Statement.LaneLine::voids)
                                .sum());
        paper.fact("Head", statement.head());
        if (statement.reopened() != null)
            paper.fact(
                    "Reopened",
                    "by " + statement.reopened().by() + ", "
                            + time(statement.reopened().at()) + ", entry "
                            + statement.reopened().seq()
                            + (statement.reopened().reason() == null
                                    ? ""
                                    : ": " + statement.reopened().reason()));
        lanes();
        voids();
        since();
        paper.signatures("Closed by (name, date, signature)", "Checked by (name, date, signature)");
    }

    private void lanes() throws IOException {
        paper.heading("Numbers issued");
        paper.row(new float[] {0, 110, 180, 290, 400, 440}, "Series", "Lane", "First", "Last", "Issued", "Void");
        for (Statement.LaneLine lane : statement.lanes())
            paper.row(
                    new float[] {0, 110, 180, 290, 400, 440},
                    lane.series(),
                    lane.lane().isEmpty() ? "—" : lane.lane(),
                    lane.first() == null ? "—" : lane.first(),
                    lane.last() == null ? "—" : lane.last(),
                    Long.toString(lane.issued()),
                    Long.toString(lane.voids()));
        if (statement.lanes().isEmpty()) paper.line(Paper.LEFT, Paper.SIZE, "No numbers are dated inside the period.");
    }

    private void voids() throws IOException {
        paper.heading("Void numbers, with reasons");
        if (statement.voids().isEmpty()) paper.line(Paper.LEFT, Paper.SIZE, "Nothing.");
        lines(statement.voids());
    }

    /** What the figures above do not hold. */
    private void since() throws IOException {
        if (statement.voidsSince().isEmpty() && statement.issuedSince() == 0) return;
        paper.heading("Changed since the closing");
        if (statement.issuedSince() > 0)
            paper.line(Paper.LEFT, Paper.SIZE, "Numbers issued inside the period: " + statement.issuedSince());
        lines(statement.voidsSince());
    }

    private void lines(List<Statement.VoidLine> lines) throws IOException {
        for (Statement.VoidLine each : lines) {
            String numbers = each.first().equals(each.last())
                    ? each.first()
                    : each.first() + " to " + each.last() + " (" + each.quantity() + ")";
            paper.row(
                    new float[] {0, 150, 205},
                    numbers,
                    each.kind(),
                    (each.reason() == null ? "no reason" : each.reason()) + " — " + each.by() + ", " + time(each.at())
                            + ", entry " + each.seq());
        }
    }

    private String time(Instant instant) {
        return TIME.format(instant.atZone(zone)) + " " + zone;
    }
}
