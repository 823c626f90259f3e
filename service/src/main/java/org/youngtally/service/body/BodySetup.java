package org.youngtally.service.body;

import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Puts the check of bodies behind that of rights. */
@Configuration
class BodySetup implements WebMvcConfigurer {
    private static final int BEHIND_RIGHTS = 1;

    private final BodyCheck check;

    BodySetup(BodyCheck check) {
        this.check = check;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(check).addPathPatterns("/api/v1/**").order(BEHIND_RIGHTS);
    }
}
