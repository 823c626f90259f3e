package org.youngtally.service.api;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.Base64;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.StringJoiner;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * What a request asked, as the text that its digest is made of: a line for the operation, then its parts in order. A
 * digest outlives releases, or whoever repeats a request after an upgrade is refused. So the words in it are written
 * out where the text is made; none comes from the name of a class, a component or a constant. The words of what was
 * hashed before a name was changed stay as they were.
 *
 * <p>A part that is new is {@linkplain #added appended with its label}, only where it is present, so that requests
 * without it keep their digests.
 */
final class RequestText {
    private static final int DIGEST_BYTES = 16;

    private final StringJoiner lines = new StringJoiner("\n");

    private RequestText() {}

    static RequestText of(String operation) {
        return new RequestText().part(operation);
    }

    /** A part that is always written: {@code null} where it was left out. */
    RequestText part(String text) {
        lines.add(String.valueOf(text));
        return this;
    }

    RequestText part(long number) {
        return part(String.valueOf(number));
    }

    /** An empty line where it is absent. */
    RequestText part(Optional<?> text) {
        return part(text.map(Object::toString).orElse(""));
    }

    /** Names and values in lines of their own; nothing where there are none. */
    RequestText part(Map<String, String> fields) {
        fields.forEach((name, value) -> part(name).part(value));
        return this;
    }

    /** A part that requests did not have when they were first hashed. */
    RequestText added(String label, Optional<String> text) {
        text.ifPresent(present -> part(label + "=" + present));
        return this;
    }

    /** The first 16 bytes of SHA-256 over the text in UTF-8, in the Base64 of addresses. */
    String digest() {
        try {
            byte[] digest =
                    MessageDigest.getInstance("SHA-256").digest(lines.toString().getBytes(StandardCharsets.UTF_8));
            return Base64.getUrlEncoder().withoutPadding().encodeToString(Arrays.copyOf(digest, DIGEST_BYTES));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }

    /** Several as one part. */
    static String list(Collection<String> texts) {
        return texts.stream().collect(Collectors.joining(", ", "[", "]"));
    }

    static <T> String list(Collection<T> all, Function<T, String> written) {
        return list(all.stream().map(written).toList());
    }

    static String map(Map<String, String> fields) {
        return fields.entrySet().stream()
                .map(field -> field.getKey() + "=" + field.getValue())
                .collect(Collectors.joining(", ", "{", "}"));
    }

    static String optional(Optional<String> text) {
        return text.map(present -> "Optional[" + present + "]").orElse("Optional.empty");
    }

    /** @param namesAndTexts of what it holds: a name, its text, the next name … */
    static String object(String name, String... namesAndTexts) {
        var parts = new StringJoiner(", ", name + "[", "]");
        for (int i = 0; i < namesAndTexts.length; i += 2) parts.add(namesAndTexts[i] + "=" + namesAndTexts[i + 1]);
        return parts.toString();
    }

    /** Texts that a request may leave out as a whole. */
    static String listOrNull(List<String> texts) {
        return texts == null ? null : list(texts);
    }
}
