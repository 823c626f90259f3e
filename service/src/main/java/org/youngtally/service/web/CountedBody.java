package org.youngtally.service.web;

import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import java.io.IOException;
import org.youngtally.service.web.Problem.Type;

/** A request whose body has no announced length. It is read once its operation has said how far, and only so far. */
public final class CountedBody extends HttpServletRequestWrapper {
    /** Lets bytes in as they come. */
    @FunctionalInterface
    public interface Allowance {
        /** @param all how many bytes there are so far */
        void upTo(long all) throws BodyRefused;
    }

    private Allowance allowance = all -> {
        throw new BodyRefused(
                new Problem(Type.MALFORMED, "A body is not accepted at this address.").field("body", "none"));
    };

    private ServletInputStream counted;

    CountedBody(HttpServletRequest request) {
        super(request);
    }

    public void allow(Allowance by) {
        allowance = by;
    }

    @Override
    public ServletInputStream getInputStream() throws IOException {
        if (counted == null) counted = new Counted(super.getInputStream());
        return counted;
    }

    private final class Counted extends ServletInputStream {
        private final ServletInputStream from;
        private long read;

        Counted(ServletInputStream from) {
            this.from = from;
        }

        @Override
        public int read() throws IOException {
            int one = from.read();
            if (one >= 0) count(1);
            return one;
        }

        @Override
        public int read(byte[] bytes, int offset, int length) throws IOException {
            int count = from.read(bytes, offset, length);
            if (count > 0) count(count);
            return count;
        }

        private void count(int more) throws BodyRefused {
            read += more;
            allowance.upTo(read);
        }

        @Override
        public boolean isFinished() {
            return from.isFinished();
        }

        @Override
        public boolean isReady() {
            return from.isReady();
        }

        @Override
        public void setReadListener(ReadListener listener) {
            from.setReadListener(listener);
        }
    }
}
