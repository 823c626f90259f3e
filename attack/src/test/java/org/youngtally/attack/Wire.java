package org.youngtally.attack;

import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Locale;

/** Sends bytes as they are, as no client would, and reads what is answered. */
final class Wire implements AutoCloseable {
    static final int PATIENCE_MILLIS = 20_000;

    private final int port;
    private Socket socket;
    private InputStream in;

    Wire(int port) {
        this.port = port;
    }

    /** @param body as text, byte by byte */
    record Answer(int status, String type, String body, long nanos) {}

    Answer send(byte[] request) throws IOException {
        long began = System.nanoTime();
        if (socket == null) open();
        try {
            return sent(request, began);
        } catch (IOException e) {
            // What was refused unread closes the connection, perhaps while it is still being sent.
            close();
            open();
            return sent(request, System.nanoTime());
        }
    }

    private void open() throws IOException {
        socket = new Socket(InetAddress.getLoopbackAddress(), port);
        socket.setSoTimeout(PATIENCE_MILLIS);
        socket.setTcpNoDelay(true);
        in = new BufferedInputStream(socket.getInputStream());
    }

    private Answer sent(byte[] request, long began) throws IOException {
        socket.getOutputStream().write(request);
        String head = head();
        int status = Integer.parseInt(head.substring(9, 12));
        String lower = head.toLowerCase(Locale.ROOT);
        String body = "";
        if (!new String(request, 0, 5, StandardCharsets.ISO_8859_1).startsWith("HEAD ") && status != 204)
            body = lower.contains("transfer-encoding: chunked")
                    ? chunks()
                    : bytes(number(lower, "content-length: ", 10));
        if (lower.contains("connection: close")) close();
        return new Answer(status, header(lower, "content-type: "), body, System.nanoTime() - began);
    }

    private String head() throws IOException {
        var head = new StringBuilder();
        while (head.length() < 4 || !head.substring(head.length() - 4).equals("\r\n\r\n")) {
            int next = in.read();
            if (next < 0) throw new IOException("the connection ended: " + head);
            head.append((char) next);
        }
        return head.toString();
    }

    private static String header(String head, String name) {
        int at = head.indexOf("\r\n" + name);
        return at < 0 ? "" : head.substring(at + 2 + name.length(), head.indexOf("\r\n", at + 2));
    }

    private static int number(String head, String name, int radix) {
        String text = header(head, name);
        return text.isEmpty() ? 0 : Integer.parseInt(text.strip(), radix);
    }

    private String bytes(int length) throws IOException {
        byte[] bytes = in.readNBytes(length);
        if (bytes.length < length) throw new IOException("the answer ended early");
        return new String(bytes, StandardCharsets.UTF_8);
    }

    private String chunks() throws IOException {
        var all = new ByteArrayOutputStream();
        while (true) {
            var size = new StringBuilder();
            for (int next = in.read(); next != '\n'; next = in.read()) {
                if (next < 0) throw new IOException("the answer ended early");
                size.append((char) next);
            }
            int length = Integer.parseInt(size.toString().strip(), 16);
            all.write(in.readNBytes(length));
            in.readNBytes(2);
            if (length == 0) return all.toString(StandardCharsets.UTF_8);
        }
    }

    @Override
    public void close() throws IOException {
        if (socket != null) socket.close();
        socket = null;
    }
}
