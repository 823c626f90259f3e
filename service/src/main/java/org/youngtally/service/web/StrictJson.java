package org.youngtally.service.web;

import com.fasterxml.jackson.annotation.Nulls;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** How bodies are read: nothing in a list or a map may be null, so that what reads them need not look. */
@Configuration
class StrictJson {
    @Bean
    JsonMapperBuilderCustomizer noNullContents() {
        return builder -> builder.changeDefaultNullHandling(nulls -> nulls.withContentNulls(Nulls.FAIL));
    }
}
