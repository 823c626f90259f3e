package org.youngtally.service.access;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.channels.SocketChannel;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.apache.coyote.http11.Http11NioProtocol;
import org.apache.tomcat.util.net.NioEndpoint;

/**
 * The container's connections, of which one source has a quarter at most: a connection beyond it is closed before
 * anything is read from it.
 */
public final class SharedConnections extends Http11NioProtocol {
    private static final int PART_OF_ONE = 4;

    /** Made by the container, by its name. */
    public SharedConnections() {
        super(new Endpoint());
    }

    /** What comes from a proxy comes from many: it has no share. */
    void shareNothing() {
        ((Endpoint) getEndpoint()).shared = false;
    }

    private static final class Endpoint extends NioEndpoint {
        private final Map<String, List<SocketChannel>> open = new HashMap<>();
        private int accepted;
        private boolean shared = true;

        /** One thread accepts. */
        @Override
        protected boolean setSocketOptions(SocketChannel socket) {
            if (!shared || hasRoom(socket)) return super.setSocketOptions(socket);
            // What is not registered yet is closed by nobody else.
            destroySocket(socket);
            return false;
        }

        private boolean hasRoom(SocketChannel socket) {
            if (!(remote(socket) instanceof InetSocketAddress from)) return false;
            if (accepted++ % getMaxConnections() == 0)
                open.values().removeIf(each -> each.removeIf(other -> !other.isOpen()) && each.isEmpty());
            List<SocketChannel> ofOne = open.computeIfAbsent(Source.of(from.getAddress()), of -> new ArrayList<>());
            int most = getMaxConnections() / PART_OF_ONE;
            if (ofOne.size() >= most) ofOne.removeIf(other -> !other.isOpen());
            return ofOne.size() < most && ofOne.add(socket);
        }

        /** Null where it has gone again. */
        private static Object remote(SocketChannel socket) {
            try {
                return socket.getRemoteAddress();
            } catch (IOException gone) {
                return null;
            }
        }
    }
}
