package org.mellowclass.browser;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/** A wire to the database of bin/test that can be cut: nothing goes through then, and nobody is told. */
final class Wire implements AutoCloseable {

    private final ServerSocket door = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
    private final int database = URI.create(System.getenv("MELLOW_DATABASE_SERVER").substring("jdbc:".length())).getPort();
    private final Set<Socket> ends = ConcurrentHashMap.newKeySet();
    private volatile boolean cut;

    Wire() throws IOException {
        thread(this::letIn);
    }

    int port() {
        return door.getLocalPort();
    }

    void cut() {
        cut = true;
    }

    void mend() throws IOException {
        cut = false;
        // what hung in between is gone, as after a restart
        for (Socket end : ends) {
            end.close();
        }
    }

    private void letIn() {
        while (!door.isClosed()) {
            try {
                Socket here = door.accept();
                Socket there = new Socket(InetAddress.getLoopbackAddress(), database);
                ends.add(here);
                ends.add(there);
                thread(() -> carry(here, there));
                thread(() -> carry(there, here));
            } catch (IOException closed) {
                return;
            }
        }
    }

    private void carry(Socket from, Socket to) {
        try (from; to) {
            InputStream in = from.getInputStream();
            OutputStream out = to.getOutputStream();
            byte[] buffer = new byte[1 << 16];
            for (int read; (read = in.read(buffer)) >= 0;) {
                if (!cut) {
                    out.write(buffer, 0, read);
                }
            }
        } catch (IOException ended) {
            ends.remove(from);
        }
    }

    private static void thread(Runnable work) {
        Thread thread = new Thread(work, "wire");
        thread.setDaemon(true);
        thread.start();
    }

    @Override
    public void close() throws IOException {
        door.close();
        mend();
    }
}
