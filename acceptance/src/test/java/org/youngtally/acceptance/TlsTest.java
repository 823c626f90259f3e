package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.InputStream;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javax.net.ssl.SSLContext;
import javax.net.ssl.TrustManagerFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Beyond this machine the service speaks TLS, by the framework's own settings, or stands behind a proxy that does. */
class TlsTest {
    @TempDir
    private Path folder;

    private void keytool(String... arguments) throws Exception {
        Process process = new ProcessBuilder(
                        concat(Service.JAVA.resolveSibling("keytool").toString(), arguments))
                .redirectErrorStream(true)
                .start();
        assertThat(process.waitFor())
                .as(new String(process.getInputStream().readAllBytes()))
                .isZero();
    }

    private static List<String> concat(String first, String... rest) {
        var all = new ArrayList<>(List.of(first));
        all.addAll(List.of(rest));
        return all;
    }

    private HttpClient trusting(Path keys) throws Exception {
        KeyStore store = KeyStore.getInstance("PKCS12");
        try (InputStream in = Files.newInputStream(keys)) {
            store.load(in, "changeit".toCharArray());
        }
        KeyStore known = KeyStore.getInstance("PKCS12");
        known.load(null, null);
        known.setCertificateEntry("tally", store.getCertificate("tally"));
        TrustManagerFactory trust = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        trust.init(known);
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(null, trust.getTrustManagers(), null);
        return HttpClient.newBuilder().sslContext(context).build();
    }

    @Test
    void withACertificateItServesEveryAddressAndCookiesTravelByHttpsAlone() throws Exception {
        Path keys = folder.resolve("keys.p12");
        Path certificate = folder.resolve("certificate.pem");
        keytool(
                "-genkeypair",
                "-alias",
                "tally",
                "-keyalg",
                "EC",
                "-dname",
                "CN=localhost",
                "-ext",
                "SAN=dns:localhost,ip:127.0.0.1",
                "-validity",
                "2",
                "-storetype",
                "PKCS12",
                "-keystore",
                keys.toString(),
                "-storepass",
                "changeit");
        keytool(
                "-exportcert",
                "-rfc",
                "-alias",
                "tally",
                "-keystore",
                keys.toString(),
                "-storepass",
                "changeit",
                "-file",
                certificate.toString());
        try (Service service = Service.serveSecurely(folder.resolve("data"), keys, trusting(keys))) {
            assertThat(service.address()).startsWith("https://");
            Service.Answer session = service.send(service.stranger("/api/v1/session")
                    .header("Content-Type", "application/json")
                    .header("Origin", service.address())
                    .POST(HttpRequest.BodyPublishers.ofString(
                            "{\"account\":\"administrator\",\"password\":\"" + service.password() + "\"}")));
            assertThat(session.status()).isEqualTo(200);
            assertThat(session.response().headers().firstValue("Set-Cookie").orElseThrow())
                    .contains("; Secure", "; HttpOnly", "SameSite=Strict");
            assertThat(session.response().headers().firstValue("Strict-Transport-Security"))
                    .isPresent();
            assertThat(service.send(service.stranger("/api/v1/session")
                                    .header("Origin", "https://evil.example")
                                    .GET())
                            .status())
                    .isEqualTo(403);
            CommandLine.Result trusted = CommandLine.client(
                    Map.of("YOUNGTALLY_TOKEN", service.token()),
                    "",
                    List.of("status", "--service", service.address(), "--certificate", certificate.toString()));
            assertThat(trusted.out()).contains("numbers are allocated");
            CommandLine.Result strange = CommandLine.client(
                    Map.of("YOUNGTALLY_TOKEN", service.token()), "", List.of("status", "--service", service.address()));
            assertThat(strange.exit()).isEqualTo(3);
            assertThat(strange.err()).contains("--certificate FILE");
            assertThat(CommandLine.client(
                                    Map.of(),
                                    "",
                                    List.of("status", "--service", service.address(), "--certificate", keys.toString()))
                            .exit())
                    .isEqualTo(2);
        }
    }

    @Test
    void behindAProxyItServesEveryAddressWithCookiesForHttpsAlone() throws Exception {
        try (Service service = Service.serve(folder.resolve("data"), "--address", "0.0.0.0", "--behind-proxy")) {
            Service.Answer session = service.send(service.stranger("/api/v1/session")
                    .header("Content-Type", "application/json")
                    .POST(HttpRequest.BodyPublishers.ofString(
                            "{\"account\":\"administrator\",\"password\":\"" + service.password() + "\"}")));
            assertThat(session.response().headers().firstValue("Set-Cookie").orElseThrow())
                    .contains("; Secure");
            assertThat(service.send(service.request("/api/v1/status")
                                    .header("Origin", "http://127.0.0.1:" + service.port())
                                    .GET())
                            .status())
                    .as("a page by plain HTTP")
                    .isEqualTo(403);
            assertThat(service.send(service.request("/api/v1/status")
                                    .header("Origin", "https://127.0.0.1:" + service.port())
                                    .GET())
                            .status())
                    .as("a page through the proxy")
                    .isEqualTo(200);
        }
    }

    @Test
    void theDemosPasswordsStayOnThisMachine() throws Exception {
        try (Service demo = Service.demo(folder.resolve("data"))) {
            assertThat(demo.get("/api/v1/status").status()).isEqualTo(200);
        }
        CommandLine.Result served = CommandLine.onData(List.of(
                "serve",
                "--port",
                "0",
                "--address",
                "0.0.0.0",
                "--behind-proxy",
                "--data",
                folder.resolve("data").toString()));
        assertThat(served.exit()).isEqualTo(1);
        assertThat(served.err()).contains("whose passwords are public");
        CommandLine.Result demo = CommandLine.onData(List.of("demo", "--port", "0", "--address", "0.0.0.0"));
        assertThat(demo.exit()).isEqualTo(1);
        assertThat(demo.err()).contains("the passwords of the demo are public");
    }
}
