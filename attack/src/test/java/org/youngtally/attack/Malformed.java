package org.youngtally.attack;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import tools.jackson.databind.JsonNode;

/**
 * Makes requests that are nearly right, out of the interface's own description: every operation, with something wrong
 * in its path, its query, its headers or its body.
 */
final class Malformed {
    /** Streams of events do not end; and who signs out or closes the attackers' accounts ends the attack. */
    private static final List<String> LEFT_OUT = List.of(
            "listen", "signOut", "closeAccount", "withdrawGrants", "revokeToken", "renewPassword", "changePassword");

    private static final List<String> METHODS =
            List.of("GET", "HEAD", "POST", "PUT", "DELETE", "OPTIONS", "PATCH", "BREW");
    private static final List<String> TYPES = List.of(
            "application/json",
            "application/json; charset=utf-16",
            "application/yaml",
            "application/xml",
            "application/x-www-form-urlencoded",
            "multipart/form-data",
            "multipart/form-data; boundary=x",
            "text/plain",
            "nonsense",
            "application/octet-stream");
    /** Texts that have broken something somewhere. */
    private static final List<String> EVIL = List.of(
            "",
            " ",
            "null",
            "0",
            "-1",
            "1",
            "1.5",
            "0x1",
            "1e9",
            "9223372036854775807",
            "9223372036854775808",
            "-9223372036854775808",
            "true",
            "2026-02-30",
            "+999999999-12-31",
            "-999999999-01-01",
            "0000-00-00",
            "P1D",
            "PT9223372036854775807S",
            "PT-1S",
            "..",
            "../../etc/passwd",
            "a/b",
            "'; drop table entry; --",
            "%",
            "_%",
            "{}",
            "[]",
            "<svg/onload=1>",
            "\u0000",
            "a\u0000b",
            "\r\nX: y",
            "\u202Eabc",
            "\uFEFF",
            "ẞß",
            "İı",
            "\uD83D\uDE00",
            "invoice-works",
            "LW26-00001",
            "works",
            "invoice",
            "K10000",
            "x".repeat(300),
            "x".repeat(7_000),
            "{count 5}",
            "{".repeat(500),
            "(a+)+b",
            "series: [".repeat(100));

    private static final Map<String, List<String>> PLAUSIBLE = Map.ofEntries(
            Map.entry(
                    "series", List.of("invoice-works", "invoice-care", "customer", "pipe-label", "crate-code", "part")),
            Map.entry("unit", List.of("works", "care", "foundry", "larkmoor")),
            Map.entry("kind", List.of("invoice", "customer", "part", "pipe-label")),
            Map.entry("record", List.of("1", "2", "3", "4", "5")),
            Map.entry("codebook", List.of("component")),
            Map.entry("account", List.of("tobin", "mara", "shop", "ines")),
            Map.entry("closing", List.of("85")),
            Map.entry("block", List.of("80")),
            Map.entry("place", List.of("1")),
            Map.entry("text", List.of("LW26-00001", "K10000")),
            Map.entry("name", List.of("new-company", "a.csv", "a.xlsx", "a.pdf")),
            Map.entry("date", List.of("2026-03-02", "2026-12-31")),
            Map.entry("limit", List.of("10")),
            Map.entry("dryRun", List.of("true")));

    private final JsonNode description;
    private final Random random;
    private final List<Operation> operations = new ArrayList<>();

    private record Operation(String name, String method, String path, JsonNode described) {}

    /** @param account whose token it shows; empty for a stranger */
    record Request(String account, String operation, String method, byte[] bytes) {
        boolean changes() {
            return !method.equals("GET") && !method.equals("HEAD");
        }

        @Override
        public String toString() {
            String text = new String(bytes, StandardCharsets.UTF_8);
            return operation + " as " + (account.isEmpty() ? "a stranger" : account) + ": "
                    + text.substring(0, Math.min(700, text.length()));
        }
    }

    Malformed(JsonNode description, long seed) {
        this.description = description;
        this.random = new Random(seed);
        for (Map.Entry<String, JsonNode> path : description.get("paths").properties())
            for (Map.Entry<String, JsonNode> method : path.getValue().properties()) {
                String name = method.getValue().get("operationId").asString();
                if (!LEFT_OUT.contains(name))
                    operations.add(
                            new Operation(name, method.getKey().toUpperCase(), path.getKey(), method.getValue()));
            }
    }

    /** Whether an answer with this status is described for the operation that a request was made from. */
    boolean describes(Request request, int status) {
        return operations.stream()
                .filter(operation -> operation.name().equals(request.operation()))
                .anyMatch(operation -> !request.method().equals(operation.method())
                        || operation.described().get("responses").has(String.valueOf(status)));
    }

    private <T> T one(List<T> of) {
        return of.get(random.nextInt(of.size()));
    }

    /** For a parameter of this name: what there is in the demo, or something evil. */
    private String value(String name) {
        List<String> there = PLAUSIBLE.getOrDefault(name, List.of());
        return there.isEmpty() || random.nextInt(5) < 2 ? one(EVIL) : one(there);
    }

    private boolean seldom(int one) {
        return random.nextInt(one) == 0;
    }

    Request next(List<String> accounts) {
        Operation operation = one(operations);
        String account = one(accounts);
        String method = seldom(25) ? one(METHODS) : operation.method();
        var address = new StringBuilder();
        for (String part : operation.path().substring(1).split("/"))
            address.append('/').append(part.startsWith("{") ? coded(value(part.replaceAll("[{}]", ""))) : part);
        if (seldom(60)) address.append(one(List.of("/", "//", ";a=b", "%2f", "%ff", "/..", "%00")));
        char separator = '?';
        var headers = new StringBuilder();
        for (JsonNode parameter : list(operation.described().get("parameters"))) {
            String name = parameter.get("name").asString();
            boolean wanted = parameter.path("required").asBoolean(false) ? !seldom(10) : random.nextBoolean();
            if (!wanted) continue;
            if (parameter.get("in").asString().equals("query")) {
                address.append(separator).append(name).append('=').append(coded(value(name)));
                separator = '&';
            } else if (parameter.get("in").asString().equals("header"))
                headers.append(name).append(": ").append(visible(one(EVIL))).append("\r\n");
        }
        if (seldom(80)) address.append(separator).append(one(List.of("%ff=%fe", "%zz", "a[]=1&a[]=2", "=", "&&&")));
        byte[] body = body(operation);
        if (method.equals("GET") || method.equals("HEAD")) body = seldom(20) ? body : new byte[0];
        var head = new StringBuilder(method + " " + address + " HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\n");
        if (!account.isEmpty())
            head.append("Authorization: ")
                    .append(seldom(50) ? visible(one(EVIL)) : "Bearer " + Victim.token(account))
                    .append("\r\n");
        if (seldom(100))
            head.append("Accept: ")
                    .append(one(List.of("text/html", "x", "image/png")))
                    .append("\r\n");
        if (seldom(200))
            head.append("Cookie: tally-session=").append(visible(one(EVIL))).append("\r\n");
        head.append(headers);
        if (body.length > 0)
            head.append("Content-Type: ")
                    .append(seldom(15) ? one(TYPES) : "application/json")
                    .append("\r\nContent-Length: ")
                    .append(body.length)
                    .append("\r\n");
        else if (!method.equals("GET") && !method.equals("HEAD")) head.append("Content-Length: 0\r\n");
        head.append("\r\n");
        var all = new ByteArrayOutputStream();
        all.writeBytes(head.toString().getBytes(StandardCharsets.ISO_8859_1));
        all.writeBytes(body);
        return new Request(account, operation.name(), method, all.toByteArray());
    }

    private static Iterable<JsonNode> list(JsonNode node) {
        return node == null ? List.of() : node;
    }

    private String coded(String text) {
        var coded = new StringBuilder();
        String shown = text.length() > 1_500 ? text.substring(0, 1_500) : text;
        for (byte each : shown.getBytes(StandardCharsets.UTF_8)) {
            char c = (char) (each & 0xff);
            boolean plain = c < 0x80 && (Character.isLetterOrDigit(c) || "-_.~".indexOf(c) >= 0);
            coded.append(plain ? String.valueOf(c) : String.format("%%%02X", (int) c));
        }
        // An empty part of a path would be another path.
        return coded.isEmpty() ? "%20" : coded.toString();
    }

    private static String visible(String text) {
        String shown = text.length() > 3_000 ? text.substring(0, 3_000) : text;
        return shown.chars()
                .filter(symbol -> symbol >= ' ' && symbol != 0x7f && symbol < 0x100)
                .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append)
                .toString();
    }

    private byte[] body(Operation operation) {
        JsonNode content = operation.described().path("requestBody").path("content");
        if (content.isMissingNode() || content.isEmpty())
            return seldom(20) ? "{}".getBytes(StandardCharsets.UTF_8) : new byte[0];
        JsonNode schema = content.path("application/json").path("schema");
        if (schema.isMissingNode()) return one(EVIL).repeat(random.nextInt(50)).getBytes(StandardCharsets.UTF_8);
        if (seldom(12))
            return one(List.of(
                            "",
                            "{",
                            "null",
                            "[]",
                            "\"text\"",
                            "{\"a\":",
                            "{}{}",
                            "{\"\\ud800\":1}",
                            "[".repeat(2_000),
                            "{\"a\":".repeat(600) + "1" + "}".repeat(600),
                            "\uFEFF{}",
                            "{'a':1}",
                            "NaN",
                            "1e999999999"))
                    .getBytes(StandardCharsets.UTF_8);
        var text = new StringBuilder();
        write(schema, text, 0);
        byte[] bytes = text.toString().getBytes(StandardCharsets.UTF_8);
        if (seldom(30) && bytes.length > 0) bytes[random.nextInt(bytes.length)] = (byte) random.nextInt(256);
        return bytes;
    }

    /** A value of the schema, or another one. */
    private void write(JsonNode schema, StringBuilder to, int depth) {
        JsonNode known = schema.has("$ref")
                ? description.at(schema.get("$ref").asString().substring(1))
                : schema;
        if (depth > 8 || seldom(14)) {
            other(to);
            return;
        }
        switch (known.path("type").asString("")) {
            case "object" -> object(known, to, depth);
            case "array" -> {
                int many = seldom(40) ? 3_000 : random.nextInt(4);
                to.append('[');
                for (int i = 0; i < many; i++) {
                    if (i > 0) to.append(',');
                    if (many > 10) other(to);
                    else write(known.path("items"), to, depth + 1);
                }
                to.append(']');
            }
            case "integer" ->
                to.append(one(List.of("0", "1", "-1", "10000", "99999999999", "1.5", "1e3", "9223372036854775808")));
            case "boolean" -> to.append(one(List.of("true", "false", "\"true\"", "0")));
            default -> text(to);
        }
    }

    private void object(JsonNode schema, StringBuilder to, int depth) {
        to.append('{');
        String between = "";
        for (Map.Entry<String, JsonNode> property : schema.path("properties").properties()) {
            if (seldom(5)) continue;
            to.append(between).append('"').append(property.getKey()).append("\":");
            write(property.getValue(), to, depth + 1);
            between = ",";
            if (seldom(60)) to.append(",\"").append(property.getKey()).append("\":1");
        }
        if (schema.has("additionalProperties")) {
            to.append(between);
            text(to);
            to.append(':');
            write(schema.get("additionalProperties"), to, depth + 1);
            between = ",";
        }
        if (seldom(25)) to.append(between).append("\"unknown\":1");
        to.append('}');
    }

    private void other(StringBuilder to) {
        to.append(one(
                List.of("null", "{}", "[]", "true", "-0", "1e5", "\"\\ud800\"", "[null]", "{\"a\":null}", "\"x\"")));
    }

    private void text(StringBuilder to) {
        to.append('"');
        for (char c : one(EVIL).toCharArray()) {
            if (c == '"' || c == '\\') to.append('\\').append(c);
            else if (c < ' ') to.append(String.format("\\u%04x", (int) c));
            else to.append(c);
        }
        if (seldom(50)) to.append(one(List.of("\\ud800", "\\udc00x", "\\u0000")));
        to.append('"');
    }
}
