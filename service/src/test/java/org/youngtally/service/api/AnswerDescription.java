package org.youngtally.service.api;

import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.headers.Header;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.IntegerSchema;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.media.ObjectSchema;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.responses.ApiResponse;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.customizers.OperationCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpHeaders;

/** What the OpenAPI document says of answers: their status, their headers, and the problems that refuse. */
@Configuration
class AnswerDescription {
    static final String PROBLEM = "Problem";

    /** 201 and nothing else. */
    private static final Set<String> CREATE = Set.of("openAccount", "issueToken", "makeBackup");
    /** 201 for what is new; 200 for a repetition, or for what there was before. */
    private static final Set<String> CREATE_OR_REPEAT = Set.of(
            "allocate",
            "allocateForRecord",
            "takeBlock",
            "saveRecord",
            "attachFile",
            "defineSeries",
            "defineCodebook",
            "defineRoute");

    private static final Set<String> WITHOUT_BODY = Set.of("signOut", "changePassword", "revokeToken", "removeRoute");
    private static final Set<String> WITH_VERSION = Set.of(
            "showCodebook",
            "defineCodebook",
            "showDefinition",
            "defineSeries",
            "defineRoute",
            "showRecord",
            "editRecord",
            "renumberRecord",
            "deleteRecord",
            "shareRecord",
            "fixRecord");
    private static final Map<String, String> FILLED = new TreeMap<>(Map.of(
            "Filled",
            "How many rows got a number",
            "Kept",
            "How many rows already had one",
            "Entry",
            "The entry of the ledger that allocated the numbers, or the first of several",
            "Last-Entry",
            "The last of several entries"));
    private static final Set<String> PAGED = Set.of("findRecords", "listEntries", "listVoids");

    private static final Map<String, String> SUBJECTS = Map.ofEntries(
            Map.entry("AccountController", "accounts"),
            Map.entry("SessionController", "sessions"),
            Map.entry("OrganisationController", "organisation"),
            Map.entry("RecordController", "records"),
            Map.entry("ContinuationController", "numbers"),
            Map.entry("RecordChangeController", "records"),
            Map.entry("RecordFileController", "records"),
            Map.entry("TableController", "tables"),
            Map.entry("InspectionController", "tables"),
            Map.entry("PlanController", "tables"),
            Map.entry("DocumentController", "documents"),
            Map.entry("ListController", "tables"),
            Map.entry("AllocationController", "numbers"),
            Map.entry("SettlingController", "numbers"),
            Map.entry("LifeController", "numbers"),
            Map.entry("CheckController", "check digits"),
            Map.entry("CodebookController", "definitions"),
            Map.entry("DefinitionController", "definitions"),
            Map.entry("SeriesController", "definitions"),
            Map.entry("StarterController", "definitions"),
            Map.entry("OutlookController", "outlook"),
            Map.entry("LabelController", "labels"),
            Map.entry("LabelChangeController", "labels"),
            Map.entry("LabelJobController", "labels"),
            Map.entry("LabelOutputController", "labels"),
            Map.entry("LabelTableController", "labels"),
            Map.entry("ShippingCodeController", "definitions"),
            Map.entry("SimulatedPrinterController", "labels"),
            Map.entry("ScanController", "labels"),
            Map.entry("EventController", "events"),
            Map.entry("LedgerController", "ledger"),
            Map.entry("ClosingController", "ledger"),
            Map.entry("BackupController", "status"),
            Map.entry("RestoreController", "ledger"),
            Map.entry("StatusController", "status"));

    @Bean
    OperationCustomizer answers() {
        return (operation, method) -> {
            String controller = method.getBeanType().getSimpleName();
            if (!SUBJECTS.containsKey(controller))
                throw new IllegalStateException("nothing says what " + controller + " is about");
            operation.setTags(List.of(SUBJECTS.get(controller)));
            succeed(operation);
            refuse(operation);
            return operation;
        };
    }

    private static void succeed(Operation operation) {
        String name = operation.getOperationId();
        ApiResponse usual = operation.getResponses().get("200");
        if (usual == null) return;
        if (WITH_VERSION.contains(name))
            usual.addHeaderObject(HttpHeaders.ETAG, header("The version, for If-Match", new StringSchema()));
        if (PAGED.contains(name))
            usual.addHeaderObject(
                    HttpHeaders.LINK, header("The next page, as rel=\"next\", where there is one", new StringSchema()));
        if (name.equals("fillTable"))
            FILLED.forEach((header, says) -> usual.addHeaderObject(header, header(says, new StringSchema())));
        usual.setDescription("Done");
        if (CREATE.contains(name) || CREATE_OR_REPEAT.contains(name))
            operation
                    .getResponses()
                    .addApiResponse(
                            "201",
                            new ApiResponse()
                                    .description("New")
                                    .headers(usual.getHeaders())
                                    .content(usual.getContent()));
        if (WITHOUT_BODY.contains(name))
            operation.getResponses().addApiResponse("204", new ApiResponse().description("Done"));
        if (CREATE_OR_REPEAT.contains(name)) usual.setDescription("As before, or changed");
        if (CREATE.contains(name) || WITHOUT_BODY.contains(name))
            operation.getResponses().remove("200");
    }

    private static void refuse(Operation operation) {
        Content content = new Content()
                .addMediaType(
                        "application/problem+json",
                        new MediaType().schema(new Schema<>().$ref("#/components/schemas/" + PROBLEM)));
        Header later = header("Seconds to wait before repeating, with 429 and 503", new IntegerSchema());
        operation
                .getResponses()
                .addApiResponse(
                        "4XX",
                        new ApiResponse()
                                .description("Refused; nothing was done")
                                .content(content)
                                .addHeaderObject(HttpHeaders.RETRY_AFTER, later))
                .addApiResponse(
                        "5XX",
                        new ApiResponse()
                                .description("Not done, or unknown whether it was done; the type says which")
                                .content(content)
                                .addHeaderObject(HttpHeaders.RETRY_AFTER, later));
    }

    private static Header header(String description, Schema<?> schema) {
        return new Header().description(description).schema(schema);
    }

    /** Problem details by RFC 9457, with what this service adds to them. */
    @Bean
    OpenApiCustomizer problems() {
        Schema<?> problem = new ObjectSchema()
                .description("Problem details by RFC 9457; some types add properties")
                .addProperty("type", new StringSchema().description("The address of an explanation; stable"))
                .addProperty("title", new StringSchema().description("The same for all problems of the type"))
                .addProperty("status", new IntegerSchema())
                .addProperty("detail", new StringSchema().description("What happened, for people"))
                .addProperty("instance", new StringSchema().description("The address of the request"))
                .addProperty("field", new StringSchema().description("What was at fault"))
                .addProperty("accepted", new StringSchema().description("What is accepted"));
        problem.setRequired(List.of("type", "title", "status", "detail"));
        problem.setAdditionalProperties(true);
        return document -> document.getComponents().addSchemas(PROBLEM, problem);
    }
}
