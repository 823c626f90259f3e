package org.youngtally.service.api;

import io.swagger.v3.oas.models.Components;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.ArraySchema;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.parameters.Parameter;
import io.swagger.v3.oas.models.security.SecurityRequirement;
import io.swagger.v3.oas.models.security.SecurityScheme;
import io.swagger.v3.oas.models.servers.Server;
import java.io.IOException;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.customizers.OperationCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.youngtally.core.access.Right;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.OpenToAll;
import org.youngtally.service.access.SignedIn;
import org.youngtally.service.closing.Statement;
import org.youngtally.service.definitions.Differences;
import org.youngtally.service.web.Reach;
import org.youngtally.service.web.Refusals;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** What the OpenAPI document says of the interface as a whole. */
@Configuration
class ApiDescription {
    private static final List<Class<?>> SPEAKERS = List.of(
            AccountController.class,
            SessionController.class,
            OrganisationController.class,
            RecordController.class,
            RecordChangeController.class,
            RecordFileController.class,
            TableController.class,
            RecordView.class,
            AllocationController.class,
            CheckController.class,
            CodebookController.class,
            CodebookForm.class,
            DefinitionController.class,
            EventController.class,
            LedgerController.class,
            StatusController.class,
            LifeController.class,
            OutlookController.class,
            SettlingController.class,
            ContinuationController.class,
            BackupController.class,
            RestoreController.class,
            PlanController.class,
            DocumentViews.class,
            ListController.class,
            LabelController.class,
            LabelChangeController.class,
            LabelJobController.class,
            LabelOutputController.class,
            LabelTableController.class,
            ShippingCodeController.class,
            LabelJobs.class,
            SimulatedPrinterController.class,
            ScanController.class,
            Settlement.class,
            ClosingController.class,
            InspectionView.class,
            Statement.class,
            StarterController.class,
            SeriesView.class,
            Differences.class,
            Refusals.class);

    static {
        SpringDocUtils.getConfig().addRequestWrapperToIgnore(Caller.class);
        SpringDocUtils.getConfig().replaceWithSchema(SeriesForm.class, GroupSchemas.reference(SeriesProperties.SERIES));
    }

    private static final String TOKEN = "token";
    private static final String SESSION = "session";

    @Bean
    OpenAPI description() {
        return new OpenAPI()
                .info(
                        new Info()
                                .title("Young Tally")
                                .version("1")
                                .description(
                                        "Gap-free, duplicate-free identifiers. Refusals are problem details by RFC 9457: a stable type, the field at fault and what would be accepted."))
                .components(
                        new Components()
                                .addSecuritySchemes(
                                        TOKEN,
                                        new SecurityScheme()
                                                .type(SecurityScheme.Type.HTTP)
                                                .scheme("bearer")
                                                .description("A token of an account"))
                                .addSecuritySchemes(
                                        SESSION,
                                        new SecurityScheme()
                                                .type(SecurityScheme.Type.APIKEY)
                                                .in(SecurityScheme.In.COOKIE)
                                                .name(Reach.COOKIE)
                                                .description(
                                                        "The session of a browser; a hyphen and the port follow in the cookie's name, and what changes something also shows its secret as X-CSRF-TOKEN")))
                .servers(List.of(new Server().url("/").description("This service")));
    }

    /**
     * Says of each operation which right it needs, and where; one that says nothing is left without, and is answered to
     * nobody.
     */
    @Bean
    OperationCustomizer rights() {
        return (operation, method) -> {
            Needs needs = method.getMethodAnnotation(Needs.class);
            if (method.hasMethodAnnotation(OpenToAll.class)) operation.setSecurity(List.of());
            else if (needs != null || method.hasMethodAnnotation(SignedIn.class)) {
                List<String> rights = needs == null
                        ? List.of()
                        : Arrays.stream(needs.value()).map(Right::word).toList();
                operation.setSecurity(List.of(
                        new SecurityRequirement().addList(TOKEN, rights),
                        new SecurityRequirement().addList(SESSION, rights)));
                if (needs != null)
                    operation.addExtension("x-needed-at", needs.at().name().toLowerCase(Locale.ROOT));
            }
            return operation;
        };
    }

    /** What is read and written by a list of properties. */
    @Bean
    @Order(Ordered.HIGHEST_PRECEDENCE)
    OpenApiCustomizer lists() {
        return document -> GroupSchemas.all().forEach(document.getComponents()::addSchemas);
    }

    /** What each property is; it is always there unless its component in the code is marked nullable. */
    @Bean
    OpenApiCustomizer properties() throws IOException {
        SourceComments comments = SourceComments.under(Path.of("src/main/java/org/youngtally/service"));
        Map<String, Class<?>> records = SPEAKERS.stream()
                .flatMap(speaker -> Stream.concat(Stream.of(speaker), Arrays.stream(speaker.getDeclaredClasses())))
                .filter(Class::isRecord)
                .collect(Collectors.toMap(Class::getSimpleName, Function.identity()));
        Map<String, Schema<?>> listed = GroupSchemas.all();
        return document -> document.getComponents().getSchemas().forEach((name, schema) -> {
            if (name.equals(AnswerDescription.PROBLEM) || listed.containsKey(name)) return;
            Class<?> written = records.get(name);
            if (written == null) throw new IllegalStateException("no record was found for the schema " + name);
            ownKind(schema, name, written);
            require(schema, written);
            describe(schema, name, comments);
        });
    }

    /** A list of things of its own kind is left out by the generator, which stops where a record meets itself. */
    private static void ownKind(Schema<?> schema, String name, Class<?> written) {
        for (RecordComponent component : written.getRecordComponents()) {
            boolean listOfItself = component.getGenericType() instanceof ParameterizedType type
                    && type.getRawType() == List.class
                    && type.getActualTypeArguments()[0] == written;
            if (listOfItself && !schema.getProperties().containsKey(component.getName()))
                schema.addProperty(
                        component.getName(),
                        new ArraySchema().items(new Schema<>().$ref("#/components/schemas/" + name)));
        }
    }

    private static void describe(Schema<?> schema, String name, SourceComments comments) {
        if (!comments.of(name).isEmpty()) schema.setDescription(comments.of(name));
        schema.getProperties().forEach((property, each) -> {
            String called = name + "." + property;
            String said = comments.of(name, property);
            String meaning = said.isEmpty() ? Vocabulary.MEANINGS.get(property) : capitalised(said);
            if (meaning == null && each.get$ref() == null)
                throw new IllegalStateException("nothing says what " + called + " is");
            if (each.get$ref() == null) each.setDescription(meaning);
            if (Vocabulary.WORDS.containsKey(called))
                words(each.getItems() == null ? each : each.getItems(), Vocabulary.WORDS.get(called));
            if (Vocabulary.DATES.contains(called)) each.setFormat("date");
            if (Vocabulary.DURATIONS.contains(called)) each.setFormat("duration");
        });
    }

    @SuppressWarnings("unchecked")
    private static void words(Schema<?> schema, List<String> words) {
        ((Schema<String>) schema).setEnum(words);
    }

    private static String capitalised(String text) {
        return text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1);
    }

    /** What each operation is asked with, by an example, and what its parameters are. */
    @Bean
    OperationCustomizer requests() throws IOException {
        Map<String, Object> examples = JsonMapper.shared()
                .readValue(
                        ApiDescription.class.getResourceAsStream("/examples.json"),
                        new TypeReference<LinkedHashMap<String, Object>>() {});
        return (operation, method) -> {
            if (operation.getParameters() != null)
                for (Parameter parameter : operation.getParameters()) {
                    if (parameter.getDescription() == null)
                        parameter.setDescription(Vocabulary.MEANINGS.get(parameter.getName()));
                    if (parameter.getName().equals("date"))
                        parameter.getSchema().setFormat("date");
                }
            if (operation.getRequestBody() == null) return operation;
            MediaType json = operation.getRequestBody().getContent().get("application/json");
            if (json == null) return operation;
            if (!examples.containsKey(operation.getOperationId()))
                throw new IllegalStateException("there is no example of " + operation.getOperationId());
            json.setExample(examples.get(operation.getOperationId()));
            return operation;
        };
    }

    private static void require(Schema<?> schema, Class<?> written) {
        for (RecordComponent component : written.getRecordComponents())
            if (!component.getAnnotatedType().isAnnotationPresent(Nullable.class))
                schema.addRequiredItem(component.getName());
    }
}
