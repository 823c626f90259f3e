package org.youngtally.service.web;

import org.springframework.context.annotation.Configuration;
import org.springframework.core.convert.converter.Converter;
import org.springframework.format.FormatterRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** How numbers and yes or no are read in addresses: in decimal digits, and as true or false. */
@Configuration
class StrictParameters implements WebMvcConfigurer {
    private static final int DIGITS_OF_LONG = 19;
    private static final int DIGITS_OF_INT = 10;

    @Override
    public void addFormatters(FormatterRegistry registry) {
        registry.addConverter(String.class, Long.class, text -> Long.valueOf(digits(text, DIGITS_OF_LONG)));
        registry.addConverter(String.class, Integer.class, text -> Integer.valueOf(digits(text, DIGITS_OF_INT)));
        registry.addConverter(String.class, Boolean.class, (Converter<String, Boolean>) StrictParameters::truth);
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
