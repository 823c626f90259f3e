package org.youngtally.service.web;

import com.fasterxml.jackson.annotation.Nulls;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.youngtally.core.text.HalfSymbols;
import tools.jackson.core.JsonParser;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.KeyDeserializer;
import tools.jackson.databind.cfg.CoercionAction;
import tools.jackson.databind.cfg.CoercionInputShape;
import tools.jackson.databind.deser.jdk.StringDeserializer;
import tools.jackson.databind.deser.std.StdScalarDeserializer;
import tools.jackson.databind.module.SimpleModule;
import tools.jackson.databind.type.LogicalType;

/**
 * How bodies are read: a property stands once, nothing in a list or a map is null, a text is a text, and holds no half
 * of a symbol that needs two.
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
                        .addKeyDeserializer(String.class, new Names()));
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
