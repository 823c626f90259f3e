package org.youngtally.labels;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.youngtally.core.check.CheckSchemes;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.gs1.ElementReader;
import org.youngtally.core.gs1.ElementReader.Form;
import org.youngtally.core.gs1.ElementString;
import org.youngtally.core.label.BarCodeKind;
import org.youngtally.core.label.Layout.Mark;
import uk.org.okapibarcode.backend.Code128;
import uk.org.okapibarcode.backend.Code2Of5;
import uk.org.okapibarcode.backend.DataMatrix;
import uk.org.okapibarcode.backend.Ean;
import uk.org.okapibarcode.backend.HumanReadableLocation;
import uk.org.okapibarcode.backend.OkapiException;
import uk.org.okapibarcode.backend.QrCode;
import uk.org.okapibarcode.backend.Symbol;

/**
 * A bar code, in modules.
 *
 * @param columns how wide it is without its quiet zones
 * @param rows how high it is; 1 for one that is read along one line
 * @param bars what is dark
 * @param readable what is written below it
 */
record BarCode(int columns, int rows, List<Bar> bars, String readable) {
    BarCode {
        bars = List.copyOf(bars);
    }

    /** Dark modules side by side. */
    record Bar(double x, double y, double width, double height) {}

    /** A text that a bar code cannot hold. */
    static final class Unfit extends Exception {
        private static final long serialVersionUID = 1L;
        private final transient List<Fault> faults;

        private Unfit(List<Fault> faults) {
            super(faults.toString());
            this.faults = faults;
        }

        private Unfit(String problem, String accepted) {
            this(List.of(new Fault("", problem, accepted)));
        }

        /** Their paths name a GS1 element, or nothing. */
        List<Fault> faults() {
            return faults;
        }
    }

    /** @param text what it holds; GS1 elements with parentheses */
    static BarCode of(Mark.Code code, String text) throws Unfit {
        BarCodeKind kind = code.kind();
        return switch (kind.data()) {
            case TEXT ->
                plain(kind, code.link().isPresent() ? link(text, code.link().get()) : text);
            case ELEMENTS -> {
                ElementString elements = elements(text);
                Symbol symbol = symbol(kind);
                symbol.setDataType(Symbol.DataType.GS1);
                yield drawn(
                        kind,
                        symbol,
                        elements.elements().stream()
                                .map(each -> "[" + each.identifier().code() + "]" + each.value())
                                .collect(Collectors.joining()),
                        elements.bracketed());
            }
            case ITEM_13 -> item(kind, text, 13);
            case ITEM_14 -> item(kind, text, 14);
        };
    }

    private static ElementString elements(String text) throws Unfit {
        Optional<ElementReader.Reading> reading =
                ElementReader.read(text).filter(found -> found.form() == Form.BRACKETED);
        if (reading.isEmpty())
            throw new Unfit(
                    "‘" + text + "’ holds no GS1 elements", "write them with parentheses, such as (00){identifier}");
        if (!reading.get().faults().isEmpty()) throw new Unfit(reading.get().faults());
        return reading.get().string();
    }

    private static String link(String text, String base) throws Unfit {
        return elements(text)
                .link(base)
                .orElseThrow(() -> new Unfit(
                        "‘" + text + "’ has no key that a link can begin with", "add one, such as (01) or (00)"));
    }

    private static BarCode item(BarCodeKind kind, String text, int digits) throws Unfit {
        if (!text.matches("[0-9]{" + digits + "}"))
            throw new Unfit(
                    "‘" + text + "’ is not " + digits + " digits", "write " + digits + " digits, check digit included");
        String body = text.substring(0, digits - 1);
        String check = CheckSchemes.of("gs1").orElseThrow().check(body).orElseThrow();
        if (!text.endsWith(check))
            throw new Unfit("the check digit of ‘" + text + "’ is wrong", "for " + body + " it is " + check);
        return drawn(kind, symbol(kind), kind == BarCodeKind.EAN_13 ? body : text, text);
    }

    private static BarCode plain(BarCodeKind kind, String text) throws Unfit {
        if (text.isEmpty()) throw new Unfit("it would hold nothing", "write what it holds");
        return drawn(kind, symbol(kind), text, text);
    }

    private static Symbol symbol(BarCodeKind kind) {
        return switch (kind) {
            case CODE_128, GS1_128 -> new Code128();
            case EAN_13 -> {
                var symbol = new Ean(Ean.Mode.EAN13);
                symbol.setGuardPatternExtraHeight(0);
                yield symbol;
            }
            case ITF_14 -> {
                var symbol = new Code2Of5(Code2Of5.ToFMode.INTERLEAVED);
                // Whole modules, so that they are whole dots.
                symbol.setModuleWidthRatio(3);
                yield symbol;
            }
            case DATA_MATRIX, GS1_DATA_MATRIX -> {
                var symbol = new DataMatrix();
                symbol.setForceMode(DataMatrix.ForceMode.SQUARE);
                yield symbol;
            }
            case QR, GS1_QR -> {
                var symbol = new QrCode();
                symbol.setPreferredEccLevel(QrCode.EccLevel.M);
                yield symbol;
            }
        };
    }

    private static BarCode drawn(BarCodeKind kind, Symbol symbol, String encoded, String readable) throws Unfit {
        symbol.setHumanReadableLocation(HumanReadableLocation.NONE);
        symbol.setModuleWidth(1);
        if (kind.isLinear()) symbol.setBarHeight(1);
        try {
            symbol.setContent(encoded);
        } catch (OkapiException e) {
            throw new Unfit(
                    "‘" + readable + "’ cannot be held by " + kind.word() + ": " + e.getMessage(),
                    "use other symbols, fewer of them, or another symbology");
        }
        List<Bar> bars = symbol.getRectangles().stream()
                .map(each ->
                        new Bar(each.x, kind.isLinear() ? 0 : each.y, each.width, kind.isLinear() ? 1 : each.height))
                .distinct()
                .toList();
        return new BarCode(symbol.getWidth(), kind.isLinear() ? 1 : symbol.getHeight(), bars, readable);
    }
}
