package org.youngtally.service.api;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.servers.Server;
import java.util.List;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** What the OpenAPI document says of the interface as a whole. */
@Configuration
class ApiDescription {
    @Bean
    OpenAPI description() {
        return new OpenAPI()
                .info(new Info().title("Young Tally").version("1").description("Gap-free, duplicate-free identifiers. Refusals are problem details by RFC 9457: a stable type, the field at fault and what would be accepted."))
                .servers(List.of(new Server().url("/").description("This service")));
    }
}
