package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import com.google.gson.JsonParser;
import com.google.gson.JsonSyntaxException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.ConnectException;
import java.net.HttpURLConnection;
import java.net.URI;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.cert.Certificate;
import java.security.cert.CertificateFactory;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import javax.net.ssl.HttpsURLConnection;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLException;
import javax.net.ssl.SSLSocketFactory;
import javax.net.ssl.TrustManagerFactory;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** The service, over HTTP. A plain connection is all it takes, and starts fastest. */
final class Service {
    private static final int TRIES = 5;

    private static final String KEY = "Idempotency-Key";
    private static final String AUTHORIZATION = "Authorization";
    private static final String WARNING = "Ledger-Warning";

    @Option(
            names = "--service",
            paramLabel = "ADDRESS",
            description =
                    "The service (YOUNGTALLY_SERVICE; default http://127.0.0.1:7460, or the port in YOUNGTALLY_PORT).",
            defaultValue = "${env:YOUNGTALLY_SERVICE:-}")
    private String address;

    @Option(
            names = "--token-file",
            paramLabel = "FILE",
            description =
                    "A file with the token to use (or YOUNGTALLY_TOKEN, the token itself; default: that of youngtally sign-in).")
    private Path tokenFile;

    @Option(
            names = "--certificate",
            paramLabel = "FILE",
            description =
                    "The certificate in PEM that signed the service's own, if this machine does not trust it (YOUNGTALLY_CERTIFICATE).",
            defaultValue = "${env:YOUNGTALLY_CERTIFICATE:-}")
    private String certificate;

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    private boolean warned;

    /**
     * An answer: its body, its text as it came, the address of the next page if there is one, and the tag of its
     * version if it has one.
     */
    record Answer(JsonElement body, String text, Optional<String> next, String tag) {}

    Answer get(String path) {
        return call("GET", path, null, Map.of());
    }

    Answer post(String path, JsonObject body) {
        return call("POST", path, body, Map.of());
    }

    Answer delete(String path, Map<String, String> headers) {
        return call("DELETE", path, null, headers);
    }

    /** A request as somebody else than the one who is signed in. */
    Answer call(String method, String path, JsonObject body, String token) {
        return call(method, path, body, Map.of(AUTHORIZATION, "Bearer " + token));
    }

    /**
     * A request of nobody.
     *
     * @return its answer, and the cookie that it sets
     */
    Begun begin(String path, JsonObject body) {
        try {
            HttpURLConnection connection = connection("POST", path, body, Map.of(AUTHORIZATION, ""));
            Answer answer = answer(connection, false);
            return new Begun(answer, connection.getHeaderField("Set-Cookie").replaceFirst(";.*", ""));
        } catch (IOException e) {
            throw notReachable(e);
        }
    }

    record Begun(Answer answer, String cookie) {}

    /**
     * A request in a session that was begun.
     *
     * @param secret of the session; empty for a request that changes nothing
     */
    Answer inSession(String method, String path, JsonObject body, String cookie, String secret) {
        return call(method, path, body, Map.of(AUTHORIZATION, "", "Cookie", cookie, "X-CSRF-TOKEN", secret));
    }

    /** Puts a change that was made on the version with this tag. */
    Answer put(String path, JsonObject body, String tag) {
        return call("PUT", path, body, Map.of("If-Match", tag));
    }

    /** Puts something new. */
    Answer putNew(String path, JsonObject body) {
        return call("PUT", path, body, Map.of("If-None-Match", "*"));
    }

    /**
     * Posts a request that takes numbers. Where it is not known what became of it, or the service is busy, it is
     * repeated with the same key, so that it is done once at most.
     */
    Answer take(String path, JsonObject body, String key) {
        for (int attempt = 1; ; attempt++) {
            try {
                return call("POST", path, body, Map.of(KEY, key));
            } catch (TryAgain e) {
                if (attempt == TRIES) throw e.refused;
                LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(100L << attempt));
            } catch (NotReachable e) {
                if (e.getCause() instanceof ConnectException) throw e;
                if (attempt == TRIES) throw unknown(e, key);
                LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(100L << attempt));
            }
        }
    }

    private static NotReachable unknown(NotReachable away, String key) {
        return new NotReachable(
                away.getMessage() + " It is unknown whether numbers were allocated. Repeat the command with --key "
                        + key + ": they are allocated at most once.",
                away);
    }

    private static final class TryAgain extends RuntimeException {
        private static final long serialVersionUID = 1L;
        private final Refused refused;

        TryAgain(Refused refused) {
            super(refused.getMessage());
            this.refused = refused;
        }
    }

    private Answer call(String method, String path, JsonObject body, Map<String, String> headers) {
        try {
            return answer(connection(method, path, body, headers), headers.containsKey(KEY));
        } catch (IOException e) {
            throw notReachable(e);
        }
    }

    /** What came back as it is, and the headers that go with it. */
    record Sent(byte[] bytes, String text, Map<String, String> headers) {}

    /**
     * Sends bytes as they are, and gives back what comes.
     *
     * @param key by which a repetition of the request is known
     */
    Sent send(String path, byte[] body, String key) {
        try {
            HttpURLConnection connection = connection("POST", path, null, Map.of(KEY, key));
            connection.setDoOutput(true);
            connection.setRequestProperty("Content-Type", "application/octet-stream");
            connection.getOutputStream().write(body);
            if (connection.getResponseCode() >= 400) answer(connection, false);
            Map<String, String> headers = headers(connection);
            try (InputStream in = connection.getInputStream()) {
                byte[] bytes = in.readAllBytes();
                return new Sent(bytes, new String(bytes, StandardCharsets.UTF_8), headers);
            }
        } catch (IOException e) {
            NotReachable away = notReachable(e);
            throw e instanceof ConnectException ? away : unknown(away, key);
        }
    }

    /** Posts a file that is looked at and not kept, however large it is. */
    Answer upload(String path, Path file) throws IOException {
        return posted(path, file, connection -> answer(connection, false));
    }

    /** Posts bytes that are looked at and not kept. */
    Answer upload(String path, byte[] body) {
        try {
            HttpURLConnection connection = connection("POST", path, null, Map.of());
            connection.setDoOutput(true);
            connection.setRequestProperty("Content-Type", "application/octet-stream");
            connection.getOutputStream().write(body);
            return answer(connection, false);
        } catch (IOException e) {
            throw notReachable(e);
        }
    }

    /**
     * Posts a file however large it is, and writes the file that comes back.
     *
     * @param to where there is no file yet
     * @return the headers of the answer
     */
    Map<String, String> exchange(String path, Path file, Path to) throws IOException {
        return posted(path, file, connection -> {
            if (connection.getResponseCode() >= 400) answer(connection, false);
            try (InputStream in = connection.getInputStream()) {
                NewFiles.write(to, in);
            }
            return headers(connection);
        });
    }

    /**
     * Posts a request, and writes the file that comes back.
     *
     * @param to where there is no file yet
     */
    void download(String path, JsonObject body, Path to) throws IOException {
        download(path, body, to, Map.of("Accept", "*/*"));
    }

    /**
     * The same of a request that is done once.
     *
     * @param key by which a repetition of the request is known
     */
    void download(String path, JsonObject body, Path to, String key) throws IOException {
        try {
            download(path, body, to, Map.of("Accept", "*/*", KEY, key));
        } catch (NotReachable e) {
            if (e.getCause() instanceof ConnectException) throw e;
            throw new NotReachable(
                    e.getMessage() + " It is unknown whether this was done. Repeat it with --key " + key
                            + ": it is done once at most.",
                    e);
        }
    }

    private void download(String path, JsonObject body, Path to, Map<String, String> headers) throws IOException {
        try {
            HttpURLConnection connection = connection("POST", path, body, headers);
            if (connection.getResponseCode() >= 400) answer(connection, false);
            try (InputStream in = connection.getInputStream()) {
                NewFiles.write(to, in);
            }
        } catch (NewFiles.NotWritten e) {
            throw e;
        } catch (IOException e) {
            throw notReachable(e);
        }
    }

    private interface Answered<T> {
        T by(HttpURLConnection connection) throws IOException;
    }

    private <T> T posted(String path, Path file, Answered<T> answered) throws IOException {
        long size = NewFiles.size(file);
        try {
            HttpURLConnection connection = connection("POST", path, null, Map.of());
            connection.setDoOutput(true);
            connection.setFixedLengthStreamingMode(size);
            connection.setRequestProperty("Content-Type", "application/octet-stream");
            IOException broken = null;
            try (OutputStream out = connection.getOutputStream()) {
                Files.copy(file, out);
            } catch (ConnectException | SSLException e) {
                throw e;
            } catch (IOException e) {
                // A refusal may have come before all was sent.
                broken = e;
            }
            try {
                return answered.by(connection);
            } catch (NewFiles.NotWritten e) {
                throw e;
            } catch (IOException e) {
                throw broken == null ? e : broken;
            }
        } catch (NewFiles.NotWritten e) {
            throw e;
        } catch (IOException e) {
            throw notReachable(e);
        }
    }

    private static Map<String, String> headers(HttpURLConnection connection) {
        KeptReceipts.keep(connection.getHeaderField(KeptReceipts.HEADER));
        var headers = new TreeMap<String, String>(String.CASE_INSENSITIVE_ORDER);
        connection.getHeaderFields().forEach((name, values) -> {
            if (name != null) headers.put(name, values.getFirst());
        });
        return headers;
    }

    private NotReachable notReachable(IOException e) {
        String hint = e instanceof ConnectException
                ? " Start it with: youngtally serve"
                : e instanceof SSLException
                        ? " Name the certificate that its own is signed with: --certificate FILE"
                        : "";
        return new NotReachable("The service at " + base() + " cannot be reached (" + e.getMessage() + ")." + hint, e);
    }

    private HttpURLConnection connection(String method, String path, JsonObject body, Map<String, String> headers)
            throws IOException {
        checkNames(path);
        var connection = (HttpURLConnection)
                URI.create(base() + "/api/v1" + path).toURL().openConnection();
        if (connection instanceof HttpsURLConnection secure && !certificate.isEmpty())
            secure.setSSLSocketFactory(trusting());
        connection.setRequestMethod(method);
        connection.setRequestProperty("Accept", "application/json, application/schema+json, application/problem+json");
        if (!headers.containsKey(AUTHORIZATION))
            token().ifPresent(token -> connection.setRequestProperty(AUTHORIZATION, "Bearer " + token));
        String receipts = KeptReceipts.shown();
        if (!receipts.isEmpty()) connection.setRequestProperty(KeptReceipts.HEADER, receipts);
        headers.forEach((name, value) -> {
            if (!value.isEmpty()) connection.setRequestProperty(name, value);
        });
        if (body != null) {
            connection.setDoOutput(true);
            connection.setRequestProperty("Content-Type", "application/json");
            connection.getOutputStream().write(body.toString().getBytes(StandardCharsets.UTF_8));
        }
        return connection;
    }

    private SSLSocketFactory trusting() {
        try (InputStream in = Files.newInputStream(Path.of(certificate))) {
            KeyStore known = KeyStore.getInstance(KeyStore.getDefaultType());
            known.load(null, null);
            int number = 0;
            for (Certificate each : CertificateFactory.getInstance("X.509").generateCertificates(in))
                known.setCertificateEntry("given-" + number++, each);
            TrustManagerFactory trust = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
            trust.init(known);
            SSLContext context = SSLContext.getInstance("TLS");
            context.init(null, trust.getTrustManagers(), null);
            return context.getSocketFactory();
        } catch (IOException | GeneralSecurityException e) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--certificate: " + certificate + " cannot be read as a certificate in PEM: " + e.getMessage(),
                    e);
        }
    }

    /** The token that is shown: from the environment, a file, or the last sign-in at this service. */
    private Optional<String> token() {
        if (tokenFile != null) {
            try {
                return Optional.of(Files.readString(tokenFile).strip());
            } catch (IOException e) {
                throw new ParameterException(
                        spec.commandLine(), "--token-file: " + tokenFile + " cannot be read: " + e.getMessage(), e);
            }
        }
        return Surroundings.variable("YOUNGTALLY_TOKEN").map(String::strip).or(() -> SignIns.token(base()));
    }

    /** A document that is not JSON, as it comes; a refusal is JSON all the same. */
    byte[] bytes(String path) {
        try {
            HttpURLConnection connection = connection("GET", path, null, Map.of());
            if (connection.getResponseCode() >= 400) answer(connection, false);
            try (InputStream in = connection.getInputStream()) {
                return in.readAllBytes();
            }
        } catch (IOException e) {
            throw notReachable(e);
        }
    }

    private Answer answer(HttpURLConnection connection, boolean repeatable) throws IOException {
        int status = connection.getResponseCode();
        KeptReceipts.keep(connection.getHeaderField(KeptReceipts.HEADER));
        warn(connection.getHeaderField(WARNING));
        try (InputStream in = status >= 400 ? connection.getErrorStream() : connection.getInputStream()) {
            String text = in == null ? "" : new String(in.readAllBytes(), StandardCharsets.UTF_8);
            JsonElement json = text.isEmpty() && status < 400 ? new JsonObject() : JsonParser.parseString(text);
            if (json.isJsonPrimitive()) throw new JsonSyntaxException("neither an object nor a list");
            if (status < 400)
                return new Answer(
                        json, text, next(connection.getHeaderField("Link")), connection.getHeaderField("ETag"));
            if (!json.isJsonObject()) throw new JsonSyntaxException("no object");
            var refused = new Refused(json.getAsJsonObject());
            String type = Json.text(json.getAsJsonObject(), "type", "");
            boolean passing = status == 503 && !type.endsWith("/stopped") && !type.endsWith("/newest-unknown");
            if (passing && repeatable) throw new TryAgain(refused);
            throw refused;
        } catch (JsonSyntaxException e) {
            throw new NotReachable("The server at " + base() + " is not Young Tally.", e);
        }
    }

    /** Once a command, whatever it does. @param warning null where there is none */
    private void warn(String warning) {
        if (warning == null || warned) return;
        warned = true;
        spec.commandLine().getErr().println("WARNING: " + warning + ".");
        spec.commandLine().getErr().flush();
    }

    private static Optional<String> next(String link) {
        return link == null
                ? Optional.empty()
                : Optional.of(link.replaceFirst("^<(/api/v1)?", "").replaceFirst(">.*", ""));
    }

    /** The address of the service. */
    String base() {
        String chosen = !address.isEmpty()
                ? address
                : "http://127.0.0.1:" + Surroundings.variable("YOUNGTALLY_PORT").orElse("7460");
        if (!chosen.matches("https?://[^/?#]+/?"))
            throw new ParameterException(
                    spec.commandLine(),
                    "--service: ‘" + chosen + "’ is not an address. Enter one such as http://127.0.0.1:7460");
        return chosen.replaceFirst("/$", "");
    }

    /** Escapes a text for use as one segment of a path or one value of a query, by RFC 3986. */
    static String escape(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8)
                .replace("+", "%20")
                .replace("*", "%2A")
                .replace("%7E", "~");
    }

    /** Whatever has a place of its own in an address has a name without slashes, and none that means another place. */
    private void checkNames(String path) {
        for (String segment : path.replaceFirst("\\?.*", "").substring(1).split("/", -1)) {
            String name = URLDecoder.decode(segment, StandardCharsets.UTF_8);
            if (name.isEmpty() || name.equals(".") || name.equals("..") || name.matches(".*[/\\\\].*"))
                throw new ParameterException(
                        spec.commandLine(),
                        "‘" + name + "’ cannot be a name. Enter one without slashes that is more than dots");
        }
    }
}
