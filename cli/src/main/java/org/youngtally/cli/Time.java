package org.youngtally.cli;

import java.time.DateTimeException;
import java.time.Duration;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** A time such as 15m, 2h or 3d, or an ISO 8601 duration. */
record Time(Duration duration) {
    static final String SHAPE = "15m, 2h, 3d, or an ISO 8601 duration such as PT15M";
    private static final Pattern SHORT = Pattern.compile("([0-9]{1,9})([smhd])");

    static final class Converter implements ITypeConverter<Time> {
        @Override
        public Time convert(String text) {
            Matcher small = SHORT.matcher(text.strip().toLowerCase(Locale.ROOT));
            try {
                if (!small.matches()) return new Time(Duration.parse(text.strip()));
                long many = Long.parseLong(small.group(1));
                return new Time(
                        switch (small.group(2)) {
                            case "s" -> Duration.ofSeconds(many);
                            case "m" -> Duration.ofMinutes(many);
                            case "h" -> Duration.ofHours(many);
                            default -> Duration.ofDays(many);
                        });
            } catch (DateTimeException e) {
                throw new TypeConversionException("‘" + text + "’ is not a time. Write " + SHAPE + ".");
            }
        }
    }

    /** As the interface takes it. */
    @Override
    public String toString() {
        return duration.toString();
    }
}
