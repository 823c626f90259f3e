package org.youngtally.service.web;

import com.fasterxml.jackson.annotation.Nulls;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.youngtally.core.text.HalfSymbols;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.KeyDeserializer;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.cfg.CoercionAction;
import tools.jackson.databind.cfg.CoercionInputShape;
import tools.jackson.databind.deser.jdk.StringDeserializer;
import tools.jackson.databind.deser.std.StdScalarDeserializer;
import tools.jackson.databind.module.SimpleModule;
import tools.jackson.databind.ser.std.StdScalarSerializer;
import tools.jackson.databind.type.LogicalType;

/**
 * How bodies are read: a property stands once, nothing in a list or a map is null, a text is a text, and holds no half
 * of a symbol that needs two. And how instants are written: with six digits of a second, so that the same answer has
 * the same length whenever it is made.
 */
@Configuration
class StrictJson {
    /** How a text is refused; by it the refusal is known again. */
    static final String HALF = "holds half a symbol";

    @Bean
    JsonMapperBuilderCustomizer strict() {
        return builder -> builder.changeDefaultNullHandling(nulls -> nulls.withContentNulls(Nulls.FAIL))
                .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
                .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
                .withCoercionConfig(
                        LogicalType.Textual,
                        texts -> texts.setCoercion(CoercionInputShape.Boolean, CoercionAction.Fail))
                .addModule(new SimpleModule("texts")
                        .addDeserializer(String.class, new Texts())
                        .addKeyDeserializer(String.class, new Names())
                        .addSerializer(Instant.class, new Instants()));
    }

    private static final class Instants extends StdScalarSerializer<Instant> {
        private static final DateTimeFormatter SIX_DIGITS =
                new DateTimeFormatterBuilder().appendInstant(6).toFormatter();

        Instants() {
            super(Instant.class);
        }

        @Override
        public void serialize(Instant instant, JsonGenerator generator, SerializationContext context) {
            generator.writeString(SIX_DIGITS.format(instant));
        }
    }

    private static final class Texts extends StdScalarDeserializer<String> {
        Texts() {
            super(String.class);
        }

        @Override
        public String deserialize(JsonParser parser, DeserializationContext context) {
            String text = StringDeserializer.instance.deserialize(parser, context);
            if (text != null && HalfSymbols.isIn(text)) context.reportInputMismatch(this, HALF);
            return text;
        }
    }

    private static final class Names extends KeyDeserializer {
        @Override
        public Object deserializeKey(String name, DeserializationContext context) {
            if (HalfSymbols.isIn(name)) context.reportInputMismatch(String.class, HALF);
            return name;
        }
    }
}
