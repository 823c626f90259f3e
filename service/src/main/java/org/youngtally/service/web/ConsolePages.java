package org.youngtally.service.web;

import java.io.IOException;
import java.util.concurrent.TimeUnit;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.ViewControllerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.resource.PathResourceResolver;

/**
 * Serves the console: its files under their names, and its one page under every address that it shows itself; and what
 * the interface says of itself, which was written when the service was built.
 */
@Configuration
class ConsolePages implements WebMvcConfigurer {
    private static final String FILES = "classpath:/console/";

    @Override
    public void addViewControllers(ViewControllerRegistry registry) {
        registry.addViewController("/").setViewName("forward:/index.html");
    }

    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        registry.addResourceHandler("/assets/**")
                .addResourceLocations(FILES + "assets/")
                .setCacheControl(CacheControl.maxAge(365, TimeUnit.DAYS).immutable());
        registry.addResourceHandler("/api/*.json")
                .addResourceLocations("classpath:/api/")
                .setCacheControl(CacheControl.noCache());
        registry.addResourceHandler("/**")
                .addResourceLocations(FILES)
                .setCacheControl(CacheControl.noCache())
                .resourceChain(true)
                .addResolver(new PathResourceResolver() {
                    @Override
                    protected Resource getResource(String path, Resource location) throws IOException {
                        Resource file = super.getResource(path, location);
                        if (file != null) return file;
                        return path.startsWith("api/") || path.matches(".*\\.(js|css|svg|png|ico|woff2|map|txt)")
                                ? null
                                : new ClassPathResource("console/index.html");
                    }
                });
    }
}
