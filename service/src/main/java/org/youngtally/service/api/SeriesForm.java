package org.youngtally.service.api;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Map;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.service.definitions.DefinitionJson;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.annotation.JsonDeserialize;
import tools.jackson.databind.deser.std.StdDeserializer;

/** A series as it is written to be defined. */
@JsonDeserialize(using = SeriesForm.Reader.class)
record SeriesForm(SeriesDraft draft) {
    static SeriesForm of(Series series) {
        return new SeriesForm(SeriesDraft.of(series));
    }

    @JsonValue
    Map<String, Object> written() {
        return DefinitionJson.write(SeriesProperties.SERIES, draft);
    }

    static final class Reader extends StdDeserializer<SeriesForm> {
        Reader() {
            super(SeriesForm.class);
        }

        @Override
        public SeriesForm deserialize(JsonParser parser, DeserializationContext context) {
            return new SeriesForm(DefinitionJson.read(SeriesProperties.SERIES, parser, context, SeriesForm.class));
        }
    }
}
