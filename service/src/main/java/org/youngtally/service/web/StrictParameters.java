package org.youngtally.service.web;

import java.beans.PropertyEditorSupport;
import java.util.List;
import java.util.function.Function;
import org.springframework.web.bind.WebDataBinder;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.InitBinder;

/** How numbers and yes or no are read in addresses: in decimal digits, and as true or false. */
@ControllerAdvice
class StrictParameters {
    private static final int DIGITS_OF_LONG = 19;
    private static final int DIGITS_OF_INT = 10;

    @InitBinder
    void strict(WebDataBinder binder) {
        for (Class<?> type : List.of(long.class, Long.class))
            binder.registerCustomEditor(type, new Editor(text -> Long.valueOf(digits(text, DIGITS_OF_LONG))));
        for (Class<?> type : List.of(int.class, Integer.class))
            binder.registerCustomEditor(type, new Editor(text -> Integer.valueOf(digits(text, DIGITS_OF_INT))));
        for (Class<?> type : List.of(boolean.class, Boolean.class))
            binder.registerCustomEditor(type, new Editor(StrictParameters::truth));
    }

    private static final class Editor extends PropertyEditorSupport {
        private final Function<String, Object> reading;

        Editor(Function<String, Object> reading) {
            this.reading = reading;
        }

        @Override
        public void setAsText(String text) {
            setValue(reading.apply(text));
        }
    }

    private static String digits(String text, int most) {
        int from = text.startsWith("-") ? 1 : 0;
        boolean shaped = text.length() > from && text.length() - from <= most;
        for (int i = from; shaped && i < text.length(); i++) shaped = text.charAt(i) >= '0' && text.charAt(i) <= '9';
        if (!shaped) throw new IllegalArgumentException("no whole number");
        return text;
    }

    private static Object truth(String text) {
        return switch (text) {
            case "true" -> true;
            case "false" -> false;
            default -> throw new IllegalArgumentException("neither true nor false");
        };
    }
}
