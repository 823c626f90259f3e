package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.check.CheckScheme;
import org.youngtally.core.check.CheckSchemes;
import org.youngtally.core.check.Checked;
import org.youngtally.core.text.NearestName;
import org.youngtally.service.access.SignedIn;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/** Check digits as plain sums, without any series. */
@RestController
@RequestMapping(Api.V1)
class CheckController {

    /**
     * A scheme.
     *
     * @param reads the symbols that it reads
     * @param length how many check symbols it has
     * @param inFront whether they come before the rest
     * @param misses which errors it misses
     */
    record SchemeView(String name, String title, String reads, int length, boolean inFront, String misses) {
        static SchemeView of(CheckScheme scheme) {
            return new SchemeView(
                    scheme.name(), scheme.title(), scheme.reads(), scheme.length(), scheme.inFront(), scheme.misses());
        }
    }

    /** @param text with its check symbols to verify it, without them to add them */
    record CheckRequest(@Nullable String scheme, @Nullable String text) {}

    /**
     * What a text came to.
     *
     * @param text as it was compared: without separators, in capitals
     * @param given the check symbols of the text
     * @param expected those that would be right for the rest; absent where the scheme has none for it
     * @param repairs every valid text that one typing error explains
     */
    record CheckResult(
            String scheme,
            String text,
            boolean right,
            String given,
            @Nullable String expected,
            List<RepairView> repairs) {}

    /**
     * @param slip {@code wrong symbol} or {@code swap}, of the symbol at this place with the next
     * @param at the place of the error, from 1
     */
    record RepairView(String slip, int at, String text) {}

    /** @param text with its check symbols */
    record CheckAddition(String scheme, String text) {}

    @GetMapping("/check-schemes")
    @SignedIn
    @Operation(
            operationId = "listCheckSchemes",
            summary = "The check digit schemes, and which typing errors each one misses")
    List<SchemeView> schemes() {
        return CheckSchemes.all().stream().map(SchemeView::of).toList();
    }

    @PostMapping("/checks")
    @SignedIn
    @Operation(
            operationId = "check",
            summary = "Verify a typed or scanned text: valid, or which single typing error or swap explains it")
    CheckResult check(@RequestBody CheckRequest request) {
        CheckScheme scheme = scheme(request);
        try {
            Checked checked = Checked.of(scheme, text(request));
            return new CheckResult(
                    scheme.name(),
                    checked.text(),
                    checked.right(),
                    checked.given(),
                    checked.expected().orElse(null),
                    checked.repairs().stream()
                            .map(repair -> new RepairView(slip(repair.slip()), repair.at(), repair.text()))
                            .toList());
        } catch (IllegalArgumentException e) {
            throw unreadable(scheme, e);
        }
    }

    @PostMapping("/check-additions")
    @SignedIn
    @Operation(operationId = "addCheck", summary = "Add the check symbols to a text")
    CheckAddition add(@RequestBody CheckRequest request) {
        CheckScheme scheme = scheme(request);
        try {
            Optional<String> whole = Checked.add(scheme, text(request));
            return new CheckAddition(scheme.name(), whole.orElseThrow(() -> new Problem(
                            Type.MALFORMED,
                            "‘" + request.text() + "’ has no check digit under " + scheme.name() + ": it would be ten.")
                    .field("text", "another number, or a scheme that writes ten")));
        } catch (IllegalArgumentException e) {
            throw unreadable(scheme, e);
        }
    }

    private static String slip(Checked.TypingError slip) {
        return switch (slip) {
            case WRONG_SYMBOL -> "wrong symbol";
            case SWAP -> "swap";
        };
    }

    private static CheckScheme scheme(CheckRequest request) {
        String name = request.scheme() == null ? "" : request.scheme();
        return CheckSchemes.of(name).orElseThrow(() -> new Problem(
                        Type.MALFORMED,
                        name.isEmpty()
                                ? "No scheme is named."
                                : "Check digit scheme ‘" + name + "’ not found."
                                        + NearestName.to(
                                                        name,
                                                        CheckSchemes.all().stream()
                                                                .map(CheckScheme::name)
                                                                .toList())
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                .field("scheme", CheckSchemes.names()));
    }

    private static String text(CheckRequest request) {
        if (request.text() == null || request.text().isBlank())
            throw new Problem(Type.MALFORMED, "The text is missing.").field("text", "the text to check");
        if (request.text().length() > 200)
            throw new Problem(Type.MALFORMED, "The text is " + request.text().length() + " symbols long.")
                    .field("text", "up to 200 symbols");
        return request.text();
    }

    private static Problem unreadable(CheckScheme scheme, IllegalArgumentException e) {
        return new Problem(
                        Type.MALFORMED,
                        "The text cannot be checked with " + scheme.name() + ": " + e.getMessage() + ".")
                .field("text", "symbols of " + scheme.reads() + "; blanks, hyphens, dots and slashes are ignored");
    }
}
