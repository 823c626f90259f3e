package org.youngtally.service.web;

import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import org.apache.tomcat.util.http.InvalidParameterException;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.ErrorResponse;
import org.springframework.web.HttpMediaTypeNotAcceptableException;
import org.springframework.web.HttpRequestMethodNotSupportedException;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.async.AsyncRequestNotUsableException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.servlet.resource.NoResourceFoundException;
import org.youngtally.core.text.NearestName;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.service.web.Problem.Type;
import tools.jackson.core.JacksonException;
import tools.jackson.core.exc.StreamReadException;
import tools.jackson.databind.exc.MismatchedInputException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;

/** Turns everything that can go wrong with a request into problem details. */
@RestControllerAdvice
class ProblemAdvice {
    @ExceptionHandler
    ResponseEntity<ProblemDetail> problem(Problem problem) {
        return ResponseEntity.status(problem.status())
                .headers(problem.headers())
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(problem.detail());
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> unavailable(LedgerUnavailable unavailable) {
        return problem(Refusals.problem(unavailable));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> unreadable(HttpMessageNotReadableException e) {
        for (Throwable cause = e; cause != null; cause = cause.getCause())
            if (cause instanceof BodyRefused refused) return problem(refused.problem());
        return problem(
                switch (e.getCause()) {
                    case UnrecognizedPropertyException unknown -> unknownProperty(unknown);
                    case MismatchedInputException half
                    when half.getOriginalMessage().contains(StrictJson.HALF) ->
                        new Problem(Type.MALFORMED, "The property ‘" + path(half) + "’ holds half a symbol.")
                                .field(path(half), "whole symbols; remove the half symbol");
                    case MismatchedInputException mismatch ->
                        new Problem(
                                        Type.MALFORMED,
                                        (path(mismatch).isEmpty()
                                                        ? "The body"
                                                        : "The property ‘" + path(mismatch) + "’")
                                                + " has a value of the wrong type.")
                                .field(path(mismatch), kind(mismatch.getTargetType()));
                    case StreamReadException broken ->
                        new Problem(
                                        Type.MALFORMED,
                                        "The body is not JSON: " + broken.getOriginalMessage() + ", at line "
                                                + broken.getLocation().getLineNr() + ", column "
                                                + broken.getLocation().getColumnNr() + ".")
                                .field("body", "a JSON object");
                    case null, default ->
                        new Problem(Type.MALFORMED, "The body is missing or cannot be read.")
                                .field("body", "a JSON object, in UTF-8");
                });
    }

    private static Problem unknownProperty(UnrecognizedPropertyException e) {
        List<String> known =
                e.getKnownPropertyIds().stream().map(Object::toString).sorted().toList();
        String name = e.getPropertyName();
        return new Problem(
                        Type.MALFORMED,
                        "‘" + path(e) + "’ is not a property of this request."
                                + NearestName.to(name, known)
                                        .map(near -> " Did you mean ‘" + near + "’?")
                                        .orElse(""))
                .field(path(e), String.join(", ", known));
    }

    private static String path(JacksonException e) {
        return e.getPath().stream()
                .map(step ->
                        step.getPropertyName() == null ? "[" + step.getIndex() + "]" : "." + step.getPropertyName())
                .collect(Collectors.joining())
                .replaceFirst("^\\.", "");
    }

    private static String kind(Class<?> type) {
        if (type == null) return "another value";
        if (type == Long.class || type == long.class || type == Integer.class || type == int.class)
            return "a whole number";
        if (type == String.class) return "a text in quotes";
        if (type == Boolean.class || type == boolean.class) return "true or false";
        return List.class.isAssignableFrom(type) ? "a list in brackets" : "an object in braces";
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> refused(BodyRefused refused) {
        return problem(refused.problem());
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> parameter(MethodArgumentTypeMismatchException e) {
        return problem(new Problem(
                        Type.MALFORMED, "The parameter ‘" + e.getName() + "’ cannot be read: ‘" + e.getValue() + "’.")
                .field(e.getName(), kind(e.getRequiredType())));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> parameter(MissingServletRequestParameterException e) {
        return problem(new Problem(Type.MALFORMED, "The parameter ‘" + e.getParameterName() + "’ is missing.")
                .field(e.getParameterName(), "a value"));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> other(Exception e) {
        if (e instanceof AsyncRequestNotUsableException) return null;
        if (e instanceof HttpRequestMethodNotSupportedException method)
            return ResponseEntity.status(HttpStatus.METHOD_NOT_ALLOWED)
                    .headers(method.getHeaders())
                    .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                    .body(new Problem(
                                    Type.METHOD_NOT_SERVED,
                                    "‘" + method.getMethod() + "’ is not allowed at this address.")
                            .field(
                                    "method",
                                    String.join(
                                            ", ",
                                            Objects.requireNonNullElse(method.getSupportedMethods(), new String[0])))
                            .detail());
        if (e instanceof HttpMediaTypeNotAcceptableException)
            return problem(new Problem(Type.MALFORMED, "No answer of an accepted type is available.")
                    .field("Accept", "application/json, or what the operation answers with"));
        if (e instanceof InvalidParameterException)
            return problem(new Problem(Type.MALFORMED, "The query of the address cannot be read.")
                    .field("address", "NAME=VALUE, joined by &"));
        if (e instanceof NoResourceFoundException)
            return problem(
                    new Problem(Type.UNKNOWN_PLACE, "Address not found.").field("address", "one of /api/openapi.json"));
        if (e instanceof ErrorResponse known && known.getStatusCode().is4xxClientError()) {
            ProblemDetail detail = new Problem(
                            known.getStatusCode().value() == 404 ? Type.UNKNOWN_PLACE : Type.MALFORMED,
                            known.getBody().getDetail() == null
                                    ? e.getMessage()
                                    : known.getBody().getDetail())
                    .detail();
            detail.setStatus(known.getStatusCode().value());
            return ResponseEntity.status(known.getStatusCode())
                    .headers(known.getHeaders())
                    .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                    .body(detail);
        }
        return problem(ProblemWriter.failure(e));
    }
}
