package org.youngtally.service.web;

import org.springframework.context.annotation.Configuration;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.mvc.WebContentInterceptor;

/** Keeps answers out of every cache: how a series stands may change with the next request. */
@Configuration
class ApiCaching implements WebMvcConfigurer {
    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        var interceptor = new WebContentInterceptor();
        interceptor.setCacheControl(CacheControl.noStore());
        registry.addInterceptor(interceptor).addPathPatterns("/api/**");
    }
}
