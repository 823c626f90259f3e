package org.youngtally.service.api;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.ArraySchema;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.servers.Server;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.youngtally.service.closing.Statement;
import org.youngtally.service.definitions.Differences;
import org.youngtally.service.web.Refusals;

/** What the OpenAPI document says of the interface as a whole. */
@Configuration
class ApiDescription {
    private static final List<Class<?>> SPEAKERS = List.of(AllocationController.class, CheckController.class, CodebookController.class, CodebookForm.class, DefinitionController.class, EventController.class, LedgerController.class, LifeController.class, OutlookController.class, SettlingController.class, Settlement.class, ClosingController.class, Statement.class, StarterController.class, SeriesView.class, SeriesForm.class, Differences.class, Refusals.class);

    @Bean
    OpenAPI description() {
        return new OpenAPI()
                .info(new Info().title("Young Tally").version("1").description("Gap-free, duplicate-free identifiers. Refusals are problem details by RFC 9457: a stable type, the field at fault and what would be accepted."))
                .servers(List.of(new Server().url("/").description("This service")));
    }

    /** A property is always there unless its component in the code is marked nullable. */
    @Bean
    OpenApiCustomizer requiredProperties() {
        Map<String, Class<?>> records = SPEAKERS.stream().flatMap(speaker -> Stream.concat(Stream.of(speaker), Arrays.stream(speaker.getDeclaredClasses()))).filter(Class::isRecord).collect(Collectors.toMap(Class::getSimpleName, Function.identity()));
        return document -> document.getComponents().getSchemas().forEach((name, schema) -> {
            Class<?> written = records.get(name);
            if (written == null) throw new IllegalStateException("no record was found for the schema " + name);
            ownKind(schema, name, written);
            require(schema, written);
        });
    }

    /** A list of things of its own kind is left out by the generator, which stops where a record meets itself. */
    private static void ownKind(Schema<?> schema, String name, Class<?> written) {
        for (RecordComponent component : written.getRecordComponents()) {
            boolean listOfItself = component.getGenericType() instanceof ParameterizedType type && type.getRawType() == List.class && type.getActualTypeArguments()[0] == written;
            if (listOfItself && !schema.getProperties().containsKey(component.getName())) schema.addProperty(component.getName(), new ArraySchema().items(new Schema<>().$ref("#/components/schemas/" + name)));
        }
    }

    private static void require(Schema<?> schema, Class<?> written) {
        for (RecordComponent component : written.getRecordComponents()) if (!component.getAnnotatedType().isAnnotationPresent(Nullable.class)) schema.addRequiredItem(component.getName());
    }
}
