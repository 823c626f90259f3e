package org.youngtally.acceptance;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import tools.jackson.databind.JsonNode;

/**
 * What each operation needs, as the rules of the house have it, each with a request to try it by. It does not look at
 * the code: an operation that is new has no rule here.
 */
final class AccessTable {
    /** Where the page with the table stands. */
    static final Path PAGE = Path.of("../docs/access.md");

    /** Who may do what in each unit of the demo, worked out by hand from what they are. */
    static final Map<String, Map<String, List<String>>> MAY = Map.of(
            "define",
                    Map.of(
                            "works",
                            List.of("hanna", "ines"),
                            "care",
                            List.of("hanna", "ines"),
                            "foundry",
                            List.of("hanna")),
            "allocate",
                    Map.of(
                            "works",
                            List.of("hanna", "ines"),
                            "care",
                            List.of("hanna", "tobin"),
                            "foundry",
                            List.of("hanna", "ruben")),
            "hold",
                    Map.of(
                            "works",
                            List.of("hanna", "ines"),
                            "care",
                            List.of("hanna", "tobin"),
                            "foundry",
                            List.of("hanna")),
            "void",
                    Map.of(
                            "works",
                            List.of("hanna", "ines"),
                            "care",
                            List.of("hanna"),
                            "foundry",
                            List.of("hanna", "ruben")),
            "read",
                    Map.of(
                            "works",
                            List.of("hanna", "ines", "mara", "odile"),
                            "care",
                            List.of("hanna", "tobin", "odile"),
                            "foundry",
                            List.of("hanna", "ruben", "odile")),
            "audit",
                    Map.of(
                            "works",
                            List.of("hanna", "odile"),
                            "care",
                            List.of("hanna", "odile"),
                            "foundry",
                            List.of("hanna", "odile")),
            "access", Map.of("works", List.of("hanna"), "care", List.of("hanna"), "foundry", List.of("hanna")));
    /** Who has a right for all. */
    static final Map<String, List<String>> FOR_ALL = Map.of(
            "define",
            List.of("hanna"),
            "read",
            List.of("hanna", "odile"),
            "access",
            List.of("hanna"),
            "audit",
            List.of("hanna", "odile"));
    /** Who has it anywhere. */
    static final Map<String, List<String>> SOMEWHERE = Map.of(
            "read",
            List.of("hanna", "ines", "tobin", "mara", "ruben", "odile", "shop"),
            "define",
            List.of("hanna", "ines"),
            "allocate",
            List.of("hanna", "ines", "tobin", "mara", "ruben", "shop"),
            "void",
            List.of("hanna", "ines", "mara", "ruben"),
            "access",
            List.of("hanna"));
    /** What records are tried on, one of each unit: the first that are kept behind those of the demo. */
    static final int FIRST_RECORD = 10;

    static final List<String> ROLES = List.of("hanna", "ines", "tobin", "mara", "ruben", "odile", "shop");
    static final List<String> UNITS = List.of("works", "care", "foundry");
    private static final Map<String, Map<String, String>> PLACES = Map.of(
            "works",
                    Map.of(
                            "series",
                            "invoice-works",
                            "kind",
                            "invoice",
                            "text",
                            "LW26-00001",
                            "fields",
                            "\"customer\":\"K10000\"",
                            "into",
                            "number",
                            "other",
                            "salesperson"),
            "care",
                    Map.of(
                            "series",
                            "invoice-care",
                            "kind",
                            "invoice",
                            "text",
                            "LC26-0001",
                            "fields",
                            "\"customer\":\"K10000\"",
                            "into",
                            "number",
                            "other",
                            "salesperson"),
            "foundry",
                    Map.of(
                            "series",
                            "pipe-label",
                            "kind",
                            "pipe-label",
                            "text",
                            "260001B",
                            "fields",
                            "\"stop\":\"Gedackt 8\"",
                            "into",
                            "serial",
                            "other",
                            "note"));

    /** Who an operation is for. */
    enum For {
        UNIT,
        ALL,
        SOMEWHERE,
        CLOSING,
        EVERYBODY_KNOWN,
        STRANGERS_TOO
    }

    /**
     * @param right that it needs; empty for none
     * @param path with places in braces, and a query where the operation takes one
     * @param body empty for none
     */
    record Rule(String right, For who, String path, String body) {
        String path(String unit, String role) {
            return filled(path, unit, role);
        }

        String body(String unit, String role) {
            return filled(body, unit, role);
        }

        private static String filled(String text, String unit, String role) {
            String filled = text.replace("{unit}", unit)
                    .replace("{account}", role)
                    // A token issues none for its own account.
                    .replace("{another}", role.equals("hanna") ? "ines" : "hanna")
                    .replace("{closing}", "85")
                    .replace("{block}", "80")
                    .replace("{codebook}", "nothing")
                    .replace("{name}", "new-company")
                    .replace("{token}", "none")
                    .replace("{record}", String.valueOf(FIRST_RECORD + UNITS.indexOf(unit)));
            for (Map.Entry<String, String> place : PLACES.get(unit).entrySet())
                filled = filled.replace("{" + place.getKey() + "}", place.getValue());
            return filled;
        }

        boolean allows(String unit, String role) {
            return switch (who) {
                case UNIT -> MAY.get(right).get(unit).contains(role);
                case ALL -> FOR_ALL.get(right).contains(role);
                case SOMEWHERE -> SOMEWHERE.get(right).contains(role);
                // Of all invoices, of the works and of care.
                case CLOSING ->
                    MAY.get(right).get("works").contains(role)
                            && MAY.get(right).get("care").contains(role);
                case EVERYBODY_KNOWN, STRANGERS_TOO -> true;
            };
        }

        /** The units in which it has to be tried. */
        List<String> units() {
            return who == For.UNIT ? UNITS : List.of("foundry");
        }
    }

    private static final Map<String, Rule> RULES = rules();

    private AccessTable() {}

    static Rule rule(String operation) {
        return RULES.get(operation);
    }

    static List<String> operations() {
        return List.copyOf(RULES.keySet());
    }

    private static Map<String, Rule> rules() {
        var rules = new LinkedHashMap<String, Rule>();
        String identifiers = "{\"identifiers\":[\"{text}\"]}";
        String series = "/series/{series}";
        rules.put("allocate", new Rule("allocate", For.UNIT, series + "/allocations", "{\"date\":\"2026-03-02\"}"));
        rules.put("takeBlock", new Rule("allocate", For.UNIT, series + "/blocks", "{\"quantity\":2}"));
        rules.put(
                "allocateForRecord",
                new Rule(
                        "allocate",
                        For.UNIT,
                        "/kinds/{kind}/allocations",
                        "{\"unit\":\"{unit}\",\"fields\":{{fields}}}"));
        rules.put("reportUse", new Rule("allocate", For.UNIT, series + "/uses", identifiers));
        rules.put("splitBlock", new Rule("allocate", For.UNIT, "/blocks/{block}/parts", "{}"));
        rules.put("confirm", new Rule("hold", For.UNIT, series + "/confirmations", identifiers));
        rules.put("release", new Rule("hold", For.UNIT, series + "/releases", identifiers));
        rules.put(
                "clearHolds",
                new Rule(
                        "hold",
                        For.UNIT,
                        "/holds/clearings",
                        "{\"olderThan\":\"P300D\",\"reason\":\"old\",\"series\":\"{series}\"}"));
        rules.put("giveBack", new Rule("void", For.UNIT, series + "/returns", identifiers));
        rules.put("voidNumbers", new Rule("void", For.UNIT, series + "/voids", identifiers));
        for (String read : List.of(
                "showSeries ", "showDefinition /definition", "forecast /forecast", "showUse /use", "listUses /routes"))
            rules.put(
                    read.split(" ")[0],
                    new Rule("read", For.UNIT, series + (read.endsWith(" ") ? "" : read.split(" ")[1]), ""));
        rules.put("findIdentifier", new Rule("read", For.UNIT, "/identifiers?text={text}", ""));
        for (String list :
                List.of("listEntries /entries", "listHolds /holds", "listBlocks /blocks", "listVoids /voids"))
            rules.put(list.split(" ")[0], new Rule("read", For.UNIT, list.split(" ")[1] + "?series={series}", ""));
        rules.put("explainRoute", new Rule("read", For.UNIT, "/routes/why?kind={kind}&unit={unit}", ""));
        for (String list : List.of(
                "listSeries /series",
                "showCalendar /calendar",
                "listClosings /closings",
                "listCodebooks /codebooks",
                "showCodebook /codebooks/{codebook}",
                "listRoutes /routes",
                "showRouteGrid /route-grid",
                "listen /events"))
            rules.put(list.split(" ")[0], new Rule("read", For.SOMEWHERE, list.split(" ")[1], ""));
        rules.put("exportDefinitions", new Rule("read", For.ALL, "/definitions", ""));
        rules.put("showClosing", new Rule("read", For.CLOSING, "/closings/{closing}", ""));
        rules.put("printClosing", new Rule("read", For.CLOSING, "/closings/{closing}/page", ""));
        rules.put("reopenPeriod", new Rule("define", For.CLOSING, "/closings/{closing}/reopenings", "{}"));
        rules.put(
                "closePeriod",
                new Rule(
                        "define",
                        For.UNIT,
                        "/closings",
                        "{\"series\":\"{series}\",\"from\":\"2024-01-01\",\"to\":\"2024-01-02\"}"));
        rules.put("defineSeries", new Rule("define", For.UNIT, series + "/definition", "{\"key\":\"{series}\"}"));
        rules.put("defineRoute", new Rule("define", For.UNIT, "/routes/{kind}/{unit}", "{\"series\":\"nothing\"}"));
        rules.put("removeRoute", new Rule("define", For.UNIT, "/routes/{kind}/{unit}?condition=nothing", ""));
        rules.put(
                "applyDefinitions",
                new Rule(
                        "define",
                        For.UNIT,
                        "/definitions?dryRun=true",
                        "{\"files\":[{\"name\":\"a.yaml\",\"text\":\"routes: [{ kind: {kind}, unit: {unit}, series: {series}, into: {other} }]\"}]}"));
        rules.put("preview", new Rule("define", For.SOMEWHERE, "/previews", "{\"series\":{}}"));
        rules.put("defineCodebook", new Rule("define", For.ALL, "/codebooks/{codebook}", "{\"key\":\"nothing\"}"));
        rules.put("audit", new Rule("audit", For.UNIT, "/audits", "{\"series\":\"{series}\"}"));
        for (String account : List.of("listAccounts /accounts", "showAccount /accounts/nobody"))
            rules.put(account.split(" ")[0], new Rule("access", For.SOMEWHERE, account.split(" ")[1], ""));
        rules.put("openAccount", new Rule("access", For.ALL, "/accounts", "{\"name\":\"\"}"));
        for (String act : List.of(
                "closeAccount closings",
                "reopenAccount reopenings",
                "renewPassword passwords",
                "giveGrants grants",
                "withdrawGrants withdrawals"))
            rules.put(
                    act.split(" ")[0],
                    new Rule(
                            "access",
                            For.ALL,
                            "/accounts/nobody/" + act.split(" ")[1],
                            "{\"grants\":[{\"right\":\"read\",\"scope\":\"all\"}]}"));
        rules.put("listTokens", new Rule("", For.EVERYBODY_KNOWN, "/accounts/{account}/tokens", ""));
        String record = "/records/{record}";
        String fields = "{\"kind\":\"{kind}\",\"unit\":\"{unit}\",\"fields\":{{fields}}}";
        rules.put("findRecords", new Rule("read", For.SOMEWHERE, "/records", ""));
        for (String read :
                List.of("showRecord ", "showRecordHistory /versions", "printRecord /page", "fetchFile /files/1"))
            rules.put(
                    read.split(" ")[0],
                    new Rule("read", For.UNIT, record + (read.endsWith(" ") ? "" : read.split(" ")[1]), ""));
        rules.put("saveRecord", new Rule("allocate", For.UNIT, "/records", fields));
        rules.put("previewRecord", new Rule("allocate", For.UNIT, "/record-previews", fields));
        rules.put("editRecord", new Rule("allocate", For.UNIT, record, "{\"fields\":{{fields}}}"));
        rules.put("fixRecord", new Rule("allocate", For.UNIT, record + "/fixings", "{}"));
        rules.put("shareRecord", new Rule("allocate", For.UNIT, record + "/units", "{\"unit\":\"{unit}\"}"));
        rules.put("attachFile", new Rule("allocate", For.UNIT, record + "/files?name=a.txt", "{}"));
        rules.put("fillTable", new Rule("allocate", For.UNIT, "/kinds/{kind}/tables?unit={unit}&name=a.csv", "{}"));
        for (String preview : List.of("previewLabels /label-previews", "previewLabelsAsFile /label-preview-files"))
            rules.put(
                    preview.split(" ")[0],
                    new Rule(
                            "read",
                            For.UNIT,
                            preview.split(" ")[1],
                            "{\"layout\":\"crate-label\",\"series\":\"{series}\",\"fields\":{\"site\":\"X\"}}"));
        rules.put(
                "printLabels",
                new Rule(
                        "allocate",
                        For.UNIT,
                        "/label-jobs",
                        "{\"layout\":\"crate-label\",\"kind\":\"{kind}\",\"unit\":\"{unit}\",\"fields\":{{fields},\"site\":\"X\"}}"));
        rules.put("listLabelJobs", new Rule("read", For.SOMEWHERE, "/label-jobs", ""));
        for (String read : List.of("showLabelJob ", "listLabels /labels", "labelJobData /data"))
            rules.put(
                    read.split(" ")[0],
                    new Rule(
                            "read",
                            For.SOMEWHERE,
                            "/label-jobs/1" + (read.endsWith(" ") ? "" : read.split(" ")[1]),
                            ""));
        for (String act : List.of(
                "sendLabels outputs",
                "confirmLabels confirmations",
                "reprintLabels reprints",
                "cancelLabels cancellations"))
            rules.put(
                    act.split(" ")[0], new Rule("allocate", For.SOMEWHERE, "/label-jobs/1/" + act.split(" ")[1], "{}"));
        rules.put("keepLabelTable", new Rule("allocate", For.SOMEWHERE, "/label-tables?name=a.csv", "{}"));
        rules.put("writeShippingCodes", new Rule("define", For.SOMEWHERE, "/units/{unit}/shipping-codes", ""));
        rules.put("beginPrinting", new Rule("allocate", For.SOMEWHERE, "/label-jobs/1/printing", "{}"));
        rules.put("stopPrinting", new Rule("allocate", For.SOMEWHERE, "/label-jobs/1/printing", ""));
        rules.put("listPrinters", new Rule("read", For.SOMEWHERE, "/printers", ""));
        rules.put("showSimulatedPrinter", new Rule("read", For.SOMEWHERE, "/simulated-printer", ""));
        rules.put("simulatedOutput", new Rule("read", For.SOMEWHERE, "/simulated-printer/jobs/1", ""));
        rules.put(
                "troubleSimulatedPrinter",
                new Rule("allocate", For.SOMEWHERE, "/simulated-printer", "{\"trouble\":\"none\"}"));
        rules.put("spoilLabels", new Rule("void", For.SOMEWHERE, "/label-jobs/1/spoilages", "{}"));
        rules.put("scan", new Rule("read", For.SOMEWHERE, "/scans?text=X", ""));
        rules.put("listLayouts", new Rule("", For.EVERYBODY_KNOWN, "/layouts", ""));
        rules.put("showLayout", new Rule("", For.EVERYBODY_KNOWN, "/layouts/crate-label", ""));
        rules.put("inspectTable", new Rule("read", For.SOMEWHERE, "/table-inspections?name=a.csv", "{}"));
        rules.put(
                "numberList",
                new Rule(
                        "allocate",
                        For.UNIT,
                        "/kinds/{kind}/lists?unit={unit}&name=a.csv&list=none&keyColumn=none",
                        "{}"));
        rules.put("planDocument", new Rule("", For.EVERYBODY_KNOWN, "/document-plans", "{}"));
        rules.put("numberDocument", new Rule("allocate", For.SOMEWHERE, "/document-numberings", "{}"));
        rules.put("planTable", new Rule("read", For.UNIT, series + "/table-plans?name=a.csv", "{}"));
        rules.put("repairTable", new Rule("define", For.UNIT, series + "/table-repairs?name=a.csv&plan=none", "{}"));
        rules.put("listPlans", new Rule("read", For.SOMEWHERE, "/table-plans", ""));
        rules.put("abandonPlan", new Rule("define", For.SOMEWHERE, "/table-plans/1/end", "{}"));
        rules.put("continueSeries", new Rule("define", For.UNIT, series + "/continuations", "{}"));
        rules.put("showFilling", new Rule("", For.EVERYBODY_KNOWN, "/tables?key=none", ""));
        rules.put("renumberRecord", new Rule("void", For.UNIT, record + "/renumberings", "{}"));
        rules.put("deleteRecord", new Rule("void", For.UNIT, record + "/deletions", "{\"reason\":\"tried\"}"));
        rules.put("issueToken", new Rule("access", For.ALL, "/accounts/{another}/tokens", "{}"));
        rules.put("revokeToken", new Rule("", For.EVERYBODY_KNOWN, "/accounts/{account}/tokens/{token}", ""));
        for (String known : List.of(
                "showSession /session",
                "showStatus /status",
                "doNothing /noop",
                "listUnits /units",
                "listKinds /kinds",
                "showKind /kinds/{kind}",
                "listCheckSchemes /check-schemes",
                "listStarters /starters",
                "showStarter /starters/{name}",
                "definitionSchema /definition-schema"))
            rules.put(known.split(" ")[0], new Rule("", For.EVERYBODY_KNOWN, known.split(" ")[1], ""));
        for (String known : List.of("check /checks", "addCheck /check-additions", "changePassword /session/password"))
            rules.put(known.split(" ")[0], new Rule("", For.EVERYBODY_KNOWN, known.split(" ")[1], "{}"));
        rules.put("showHealth", new Rule("", For.STRANGERS_TOO, "/health", ""));
        rules.put("showReadiness", new Rule("", For.STRANGERS_TOO, "/health/ready", ""));
        rules.put("showLiveness", new Rule("", For.STRANGERS_TOO, "/health/live", ""));
        rules.put("fillStarter", new Rule("define", For.SOMEWHERE, "/starters/fillings", "{}"));
        rules.put("confirmDate", new Rule("define", For.ALL, "/clock/confirmations", "{}"));
        rules.put("listBackups", new Rule("define", For.ALL, "/backups", ""));
        rules.put("makeBackup", new Rule("define", For.ALL, "/backups", ""));
        rules.put("showRollback", new Rule("define", For.ALL, "/rollback", ""));
        rules.put("stateHighest", new Rule("define", For.ALL, "/rollback/statements", "{}"));
        rules.put("resume", new Rule("define", For.ALL, "/rollback/resumptions", "{}"));
        rules.put("listDoubts", new Rule("read", For.UNIT, "/doubts?series={series}", ""));
        rules.put("signIn", new Rule("", For.STRANGERS_TOO, "/session", "{}"));
        rules.put("signOut", new Rule("", For.STRANGERS_TOO, "/session", ""));
        return rules;
    }

    /** An operation as the interface describes itself. */
    record Described(
            String operation,
            String method,
            String path,
            String summary,
            List<String> rights,
            String at,
            boolean open) {}

    static List<Described> described(JsonNode document) {
        var all = new ArrayList<Described>();
        document.get("paths")
                .properties()
                .forEach(path -> path.getValue().properties().forEach(method -> {
                    JsonNode operation = method.getValue();
                    JsonNode security = operation.get("security");
                    var rights = new ArrayList<String>();
                    if (security != null && !security.isEmpty())
                        security.get(0).get("token").forEach(right -> rights.add(right.asString()));
                    all.add(new Described(
                            operation.get("operationId").asString(),
                            method.getKey().toUpperCase(Locale.ROOT),
                            path.getKey(),
                            operation.get("summary").asString(),
                            rights,
                            operation.has("x-needed-at")
                                    ? operation.get("x-needed-at").asString()
                                    : "",
                            security == null || security.isEmpty()));
                }));
        return all;
    }

    /** The page of the documentation, from the interface's own description. */
    static String page(JsonNode document) {
        var rows = new TreeMap<String, String>();
        for (Described each : described(document)) {
            String right = each.open()
                    ? "nothing: open to everyone"
                    : each.rights().isEmpty()
                            ? "to be signed in"
                            : "`" + String.join("` or `", each.rights()) + "` "
                                    + switch (each.at()) {
                                        case "all" -> "for all";
                                        case "somewhere" -> "anywhere; shows no more than may be read";
                                        case "series" -> "for the series";
                                        default -> "for what the request names";
                                    };
            rows.put(
                    each.path() + each.method(), "| " + each.method() + " | `" + each.path() + "` | " + right + " |\n");
        }
        return "# What each call needs\n\nMade from the service's own OpenAPI document, in which each operation names its right under `security`; a test tries every one of them as each account of the demo, in each unit.\n\n| | call | needs |\n|---|---|---|\n"
                + String.join("", rows.values());
    }

    /** Writes the page anew. */
    public static void main(String[] args) throws Exception {
        Files.writeString(PAGE, page(Service.JSON.readTree(Files.readString(Path.of("../console/openapi.json")))));
    }
}
