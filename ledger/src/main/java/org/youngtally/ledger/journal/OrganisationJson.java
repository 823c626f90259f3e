package org.youngtally.ledger.journal;

import com.fasterxml.jackson.annotation.JsonAutoDetect;
import com.fasterxml.jackson.annotation.JsonInclude;
import org.youngtally.core.access.Account;
import org.youngtally.core.label.KeptLayout;
import org.youngtally.core.label.LabelJob;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.record.KeptRecord;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.cfg.DateTimeFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * Units, kinds, layouts, routes, accounts, records and jobs of labels as JSON: each property under the name that
 * {@link KeptNames} has for it, absent ones left out.
 */
public final class OrganisationJson {
    private static final JsonMapper MAPPER = JsonMapper.builder()
            .annotationIntrospector(new KeptNames())
            .changeDefaultPropertyInclusion(usual -> usual.withValueInclusion(JsonInclude.Include.NON_ABSENT))
            .disable(DateTimeFeature.WRITE_DATES_AS_TIMESTAMPS)
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            // A flag that a later release added is absent from earlier journals, and false.
            .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
            // What a type tells besides its components is no part of it.
            .changeDefaultVisibility(visible -> visible.withFieldVisibility(JsonAutoDetect.Visibility.ANY)
                    .withGetterVisibility(JsonAutoDetect.Visibility.NONE)
                    .withIsGetterVisibility(JsonAutoDetect.Visibility.NONE))
            .build();

    private OrganisationJson() {}

    public static String write(Object part) {
        return MAPPER.writeValueAsString(part);
    }

    static JsonNode node(Object part) {
        return MAPPER.valueToTree(part);
    }

    public static Unit unit(String json) {
        return MAPPER.readValue(json, Unit.class);
    }

    public static Kind kind(String json) {
        return MAPPER.readValue(json, Kind.class);
    }

    public static KeptLayout layout(String json) {
        return MAPPER.readValue(json, KeptLayout.class);
    }

    public static LabelJob labels(String json) {
        return MAPPER.readValue(json, LabelJob.class);
    }

    public static Route route(String json) {
        return MAPPER.readValue(json, Route.class);
    }

    public static Account account(String json) {
        return MAPPER.readValue(json, Account.class);
    }

    public static KeptRecord record(String json) {
        return MAPPER.readValue(json, KeptRecord.class);
    }

    static <T> T read(JsonNode node, Class<T> type) {
        return MAPPER.treeToValue(node, type);
    }
}
