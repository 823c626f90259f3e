package org.youngtally.bench;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamReader;
import org.youngtally.core.numbering.DocumentNumbering;
import org.youngtally.core.numbering.NumberPlan;
import org.youngtally.core.numbering.Numbers;
import org.youngtally.core.numbering.Rule;
import org.youngtally.core.numbering.RuleCheck;
import org.youngtally.core.numbering.RuleDraft;
import org.youngtally.core.numbering.RuleDraft.GridDraft;
import org.youngtally.core.numbering.RuleDraft.OrderDraft;
import org.youngtally.documents.drawing.SvgDrawing;

/** The plan for an SVG drawing of 20,000 texts, beside two parsers that only read the same file. */
final class DrawingNumbering {
    private static final int TEXTS = 20_000;
    private static final int ROUNDS = 7;

    private DrawingNumbering() {}

    public static void main(String[] arguments) throws Exception {
        byte[] drawing = drawing();
        Rule rule = rule();
        double stream = Double.MAX_VALUE;
        double tree = Double.MAX_VALUE;
        double plan = Double.MAX_VALUE;
        double first = 0;
        for (int round = 0; round < ROUNDS; round++) {
            double planned = seconds(() -> plan(drawing, rule));
            if (round == 0) first = planned;
            plan = Math.min(plan, planned);
            stream = Math.min(stream, seconds(() -> stream(drawing)));
            tree = Math.min(tree, seconds(() -> tree(drawing)));
        }
        System.out.println("| | ms | ratio |\n|---|--:|--:|");
        System.out.printf(
                "| an SVG drawing of %,d texts (%,d KB), read as events by the JDK's parser | %.0f | |%n",
                TEXTS, drawing.length >> 10, stream * 1e3);
        System.out.printf("| read as a tree by the JDK's parser | %.0f | |%n", tree * 1e3);
        System.out.printf(
                "| read and planned, rows on a grid with restarts and shared nets | %.0f | %.1f × the events, %.1f × the tree |%n",
                plan * 1e3, plan / stream, plan / tree);
        System.out.printf("| the same for the first time in a fresh process | %.0f | |%n", first * 1e3);
    }

    private interface Step {
        void run() throws Exception;
    }

    private static double seconds(Step step) throws Exception {
        long begin = System.nanoTime();
        step.run();
        return (System.nanoTime() - begin) / 1e9;
    }

    private static byte[] drawing() {
        var random = new Random(1);
        var svg = new StringBuilder("<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 8400 5940\">\n");
        for (int i = 0; i < TEXTS; i++)
            svg.append("<g transform=\"translate(")
                    .append(random.nextInt(8000))
                    .append(' ')
                    .append(random.nextInt(5900))
                    .append(")\"><path d=\"M0 0H12V8H0Z\"/><text id=\"t")
                    .append(i)
                    .append("\" class=\"wire\" data-net=\"N")
                    .append(random.nextInt(TEXTS / 2))
                    .append("\" x=\"4\" y=\"6\">?</text></g>\n");
        return svg.append("</svg>\n").toString().getBytes(StandardCharsets.UTF_8);
    }

    private static Rule rule() {
        return RuleCheck.of(new RuleDraft(
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        List.of(new OrderDraft("rows", null, "8", null, null)),
                        new GridDraft(8L, 6L),
                        List.of(Rule.COLUMN),
                        "net",
                        "all",
                        "W{field column}-{count 5}",
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null))
                .rule()
                .orElseThrow();
    }

    private static void plan(byte[] bytes, Rule rule) throws Exception {
        SvgDrawing drawing = SvgDrawing.read(bytes, "wiring.svg", 1, Optional.empty());
        NumberPlan plan = DocumentNumbering.plan(
                List.of(drawing.sheet()), drawing.items(), rule, LocalDate.of(2026, 3, 2), Map.of(), Numbers.NONE);
        if (plan.changes().size() != TEXTS)
            throw new IllegalStateException(plan.faults().toString());
    }

    private static void stream(byte[] bytes) throws Exception {
        XMLStreamReader reader =
                XMLInputFactory.newDefaultFactory().createXMLStreamReader(new ByteArrayInputStream(bytes));
        long symbols = 0;
        while (reader.hasNext()) {
            reader.next();
            if (reader.isStartElement())
                for (int i = 0; i < reader.getAttributeCount(); i++)
                    symbols += reader.getAttributeValue(i).length();
            if (reader.isCharacters()) symbols += reader.getText().length();
        }
        if (symbols == 0) throw new IllegalStateException("nothing was read");
    }

    private static void tree(byte[] bytes) throws Exception {
        if (DocumentBuilderFactory.newDefaultNSInstance()
                        .newDocumentBuilder()
                        .parse(new ByteArrayInputStream(bytes))
                        .getElementsByTagName("text")
                        .getLength()
                != TEXTS) throw new IllegalStateException("texts are missing");
    }
}
