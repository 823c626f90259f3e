package org.youngtally.service.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Collection;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.MethodParameter;
import org.springframework.core.convert.converter.Converter;
import org.springframework.format.FormatterRegistry;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.youngtally.service.web.Problem.Type;

/**
 * How parameters are read in addresses: numbers in decimal digits, yes or no as true or false, and what is one value
 * stands once.
 */
@Configuration
class StrictParameters implements WebMvcConfigurer {
    private static final int BEHIND_BODIES = 2;
    private static final int DIGITS_OF_LONG = 19;
    private static final int DIGITS_OF_INT = 10;

    @Override
    public void addFormatters(FormatterRegistry registry) {
        registry.addConverter(String.class, Long.class, text -> Long.valueOf(digits(text, DIGITS_OF_LONG)));
        registry.addConverter(String.class, Integer.class, text -> Integer.valueOf(digits(text, DIGITS_OF_INT)));
        registry.addConverter(String.class, Boolean.class, (Converter<String, Boolean>) StrictParameters::truth);
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(new Once()).addPathPatterns("/api/v1/**").order(BEHIND_BODIES);
    }

    private static final class Once implements HandlerInterceptor {
        @Override
        public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
            if (request.getQueryString() == null || !(handler instanceof HandlerMethod method)) return true;
            for (MethodParameter parameter : method.getMethodParameters()) {
                if (!parameter.hasParameterAnnotation(RequestParam.class)
                        || Collection.class.isAssignableFrom(parameter.getParameterType())) continue;
                String name = name(parameter);
                String[] values = request.getParameterValues(name);
                if (values != null && values.length > 1)
                    throw new Problem(
                                    Type.MALFORMED,
                                    "The parameter ‘" + name + "’ is there " + values.length + " times.")
                            .field(name, "one value");
            }
            return true;
        }

        private static String name(MethodParameter parameter) {
            String given = parameter.getParameterAnnotation(RequestParam.class).name();
            return given.isEmpty() ? parameter.getParameter().getName() : given;
        }
    }

    private static String digits(String text, int most) {
        int from = text.startsWith("-") ? 1 : 0;
        boolean shaped = text.length() > from && text.length() - from <= most;
        for (int i = from; shaped && i < text.length(); i++) shaped = text.charAt(i) >= '0' && text.charAt(i) <= '9';
        if (!shaped) throw new IllegalArgumentException("no whole number");
        return text;
    }

    private static Boolean truth(String text) {
        return switch (text) {
            case "true" -> true;
            case "false" -> false;
            default -> throw new IllegalArgumentException("neither true nor false");
        };
    }
}
