package org.youngtally.bench;

import java.io.IOException;
import java.io.InputStream;
import java.net.HttpURLConnection;
import java.net.URI;

/** The least that a Java program needs to ask a service something: what a call of the client is compared with. */
public final class OneRequest {
    private OneRequest() {}

    public static void main(String[] args) throws IOException {
        var connection = (HttpURLConnection) URI.create(args[0]).toURL().openConnection();
        if (args.length > 1) connection.setRequestProperty("Authorization", "Bearer " + args[1]);
        try (InputStream body = connection.getInputStream()) {
            System.out.write(body.readAllBytes());
        }
        System.out.flush();
    }
}
