package org.youngtally.core.gs1;

import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.gs1.Component.Content;

/** The application identifiers that are known here, from the GS1 General Specifications, section 3.2. */
public final class ApplicationIdentifiers {
    private static final int LONGEST_CODE = 4;
    private static final Map<String, ApplicationIdentifier> KNOWN = new LinkedHashMap<>();

    static {
        add("00", "SSCC", checked(18));
        add("01", "GTIN", checked(14));
        with("02", "CONTENT", List.of("37"), checked(14));
        with("10", "BATCH/LOT", List.of("01", "02", "8006"), text(20));
        with("11", "PROD DATE", List.of("01", "02", "8006"), date());
        with("12", "DUE DATE", List.of("8020"), date());
        with("13", "PACK DATE", List.of("01", "02", "8006"), date());
        with("15", "BEST BEFORE or BEST BY", List.of("01", "02", "8006"), date());
        with("16", "SELL BY", List.of("01", "02", "8006"), date());
        with("17", "USE BY or EXPIRY", List.of("01", "02", "8006"), date());
        with("20", "VARIANT", List.of("01", "02", "8006"), digits(2));
        with("21", "SERIAL", List.of("01", "8006"), text(20));
        with("22", "CPV", List.of("01"), text(20));
        with("240", "ADDITIONAL ID", List.of("01", "02", "8006"), text(30));
        with("241", "CUST. PART No.", List.of("01", "02", "8006"), text(30));
        with("250", "SECONDARY SERIAL", List.of("21"), text(30));
        with("251", "REF. TO SOURCE", List.of("01", "8006"), text(30));
        add("253", "GDTI", checked(13), new Component(Content.TEXT, 0, 17));
        with("254", "GLN EXTENSION COMPONENT", List.of("414"), text(20));
        with("30", "VAR. COUNT", List.of("01", "02"), upTo(8));
        with("37", "COUNT", List.of("02", "8026"), upTo(8));
        add("400", "ORDER NUMBER", text(30));
        add("401", "GINC", text(30));
        add("402", "GSIN", checked(17));
        with("403", "ROUTE", List.of("00"), text(30));
        add("410", "SHIP TO LOC", checked(13));
        add("411", "BILL TO", checked(13));
        add("412", "PURCHASE FROM", checked(13));
        add("413", "SHIP FOR LOC", checked(13));
        add("414", "LOC No.", checked(13));
        add("415", "PAY TO", checked(13));
        add("416", "PROD/SERV LOC", checked(13));
        add("417", "PARTY", checked(13));
        add("420", "SHIP TO POST", text(20));
        // A filling zero, then the identifier of the asset with its check digit: the same check over all fourteen.
        add("8003", "GRAI", checked(14), new Component(Content.TEXT, 0, 16));
        add("8004", "GIAI", text(30));
        add("8006", "ITIP", checked(14), digits(2), digits(2));
        add("8010", "CPID", new Component(Content.PART, 1, 30));
        with("8011", "CPID SERIAL", List.of("8010"), upTo(12));
        add("8017", "GSRN - PROVIDER", checked(18));
        add("8018", "GSRN - RECIPIENT", checked(18));
        with("8020", "REF No.", List.of("415"), text(25));
        with("8026", "ITIP CONTENT", List.of("37"), checked(14), digits(2), digits(2));
        add("90", "INTERNAL", text(30));
        for (int code = 91; code <= 99; code++) add(String.valueOf(code), "INTERNAL", text(90));
    }

    private ApplicationIdentifiers() {}

    private static void add(String code, String title, Component... components) {
        with(code, title, List.of(), components);
    }

    private static void with(String code, String title, List<String> with, Component... components) {
        KNOWN.put(code, new ApplicationIdentifier(code, title, Arrays.asList(components), with));
    }

    private static Component checked(int length) {
        return Component.fixed(Content.CHECKED, length);
    }

    private static Component digits(int length) {
        return Component.fixed(Content.DIGITS, length);
    }

    private static Component upTo(int longest) {
        return new Component(Content.DIGITS, 1, longest);
    }

    private static Component text(int longest) {
        return new Component(Content.TEXT, 1, longest);
    }

    private static Component date() {
        return Component.fixed(Content.DATE, 6);
    }

    public static Collection<ApplicationIdentifier> all() {
        return List.copyOf(KNOWN.values());
    }

    public static Optional<ApplicationIdentifier> of(String code) {
        return Optional.ofNullable(KNOWN.get(code));
    }

    /** The one that a text begins with at a place; no code is the beginning of another. */
    static Optional<ApplicationIdentifier> at(String text, int from) {
        for (int length = 2; length <= LONGEST_CODE && from + length <= text.length(); length++) {
            Optional<ApplicationIdentifier> found = of(text.substring(from, from + length));
            if (found.isPresent()) return found;
        }
        return Optional.empty();
    }
}
