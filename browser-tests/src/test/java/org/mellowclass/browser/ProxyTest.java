package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;

import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509ExtendedTrustManager;

import com.google.gson.JsonParser;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Page;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The shipped configuration of the proxy, run as a plain process before the application. */
class ProxyTest extends BrowserTest {

    private static final int MANY = 200;
    /** A connection that the proxy ends while the body of what it refuses is still being sent. */
    private static final int REFUSED_AND_ENDED = 0;

    @TempDir
    private Path folder;
    private Process nginx;
    private int plainPort;
    private int tlsPort;

    @BeforeEach
    void startProxy() throws Exception {
        plainPort = freePort();
        tlsPort = freePort();
        Path key = folder.resolve("key.pem");
        Path certificate = folder.resolve("certificate.pem");
        run("openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-subj", "/CN=audio.school.example", "-days", "2",
                "-keyout", key.toString(), "-out", certificate.toString());
        Path shipped = Path.of(System.getProperty("mellow.jar")).resolveSibling("../../deploy/nginx-mellow-class.conf").normalize();
        String site = Files.readString(shipped);
        for (String[] change : new String[][] {{"127.0.0.1:8080", "127.0.0.1:" + app.port()}, {"listen 80;", "listen 127.0.0.1:" + plainPort + ";"},
            {"listen 443 ssl;", "listen 127.0.0.1:" + tlsPort + " ssl;"}, {"/etc/mellow-class/fullchain.pem", certificate.toString()},
            {"/etc/mellow-class/privkey.pem", key.toString()}, {"client_body_timeout 20s", "client_body_timeout 9s"},
            {"client_header_timeout 10s", "client_header_timeout 9s"}, {"$host", "$http_host"}}) {
            assertThat(site).contains(change[0]);
            site = site.replace(change[0], change[1]);
        }
        Files.writeString(folder.resolve("site.conf"), site);
        Files.writeString(folder.resolve("nginx.conf"), """
                user %s;
                pid %2$s/nginx.pid;
                error_log %2$s/error.log;
                events { worker_connections 2048; }
                http {
                    access_log off;
                    client_body_temp_path %2$s/body; proxy_temp_path %2$s/proxy; fastcgi_temp_path %2$s/f; uwsgi_temp_path %2$s/u; scgi_temp_path %2$s/s;
                    include %2$s/site.conf;
                }
                """.formatted(System.getProperty("user.name"), folder));
        nginx = new ProcessBuilder("nginx", "-p", folder.toString(), "-c", folder.resolve("nginx.conf").toString(), "-g", "daemon off;")
                .redirectErrorStream(true).redirectOutput(folder.resolve("nginx.log").toFile()).start();
        long end = System.nanoTime() + Duration.ofSeconds(20).toNanos();
        while (!answers(tlsPort)) {
            assertThat(nginx.isAlive() && System.nanoTime() < end).as(() -> said()).isTrue();
            nginx.onExit().completeOnTimeout(nginx, 50, TimeUnit.MILLISECONDS).join();
        }
    }

    @AfterEach
    void stopProxy() {
        nginx.destroy();
        nginx.onExit().join();
    }

    @Test
    void people_are_led_to_tls_and_work_there() throws Exception {
        HttpResponse<String> plain = get("http://127.0.0.1:" + plainPort + "/sign-in");
        assertThat(plain.statusCode()).isEqualTo(301);
        assertThat(plain.headers().firstValue("Location").orElseThrow()).startsWith("https://");
        HttpResponse<String> secure = get(over("/sign-in"));
        assertThat(secure.headers().firstValue("Strict-Transport-Security").orElseThrow()).startsWith("max-age=");

        Page page = page(page().context().browser(), new Browser.NewContextOptions().setIgnoreHTTPSErrors(true).setViewportSize(1280, 800));
        signInAsStudent(page, over(""), "Isla", "quiet lock");
        waitForRows(page);
        assertThat(page.context().cookies()).filteredOn(cookie -> cookie.name.equals("mellow")).allMatch(cookie -> cookie.secure && cookie.httpOnly);
        long before = revision(page);
        page.locator("#page").press("Home");
        page.keyboard().press("1");
        page.locator("#card-span").waitFor();
        page.keyboard().press("4");
        page.getByText("Removed 1.00 s. Undo brings it back.").waitFor();
        assertThat(revision(page)).isEqualTo(before + 1);
    }

    @Test
    void those_who_send_slowly_keep_nobody_waiting_and_are_let_go() throws Exception {
        List<Socket> slow = new ArrayList<>();
        try {
            for (int i = 0; i < MANY; i++) {
                slow.add(begin(trusting().getSocketFactory().createSocket("127.0.0.1", tlsPort)));
            }
            assertThat(get(over("/sign-in")).statusCode()).isEqualTo(200);
            assertThat(slow).as("still waited for").allMatch(ProxyTest::isOpen);
            for (Socket each : slow) {
                each.setSoTimeout(20_000);
                // an answer that refuses, or none: what matters is that the proxy has ended it
                each.getInputStream().readAllBytes();
            }
        } finally {
            for (Socket each : slow) {
                each.close();
            }
        }
    }

    @Test
    void without_a_proxy_two_hundred_slow_posts_do_not_stop_the_application_either() throws Exception {
        List<Socket> slow = new ArrayList<>();
        try {
            for (int i = 0; i < MANY; i++) {
                slow.add(begin(new Socket("127.0.0.1", app.port())));
            }
            assertThat(get(address("/sign-in")).statusCode()).isEqualTo(200);
            assertThat(slow).as("still waited for").allMatch(ProxyTest::isOpen);
        } finally {
            for (Socket each : slow) {
                each.close();
            }
        }
    }

    @Test
    void two_classes_sign_in_at_once_and_hundreds_more_are_refused() throws Exception {
        assertThat(codes(60)).doesNotContain(429, REFUSED_AND_ENDED);
        assertThat(codes(400)).contains(429);
    }

    private List<Integer> codes(int posts) throws Exception {
        HttpClient client = client();
        List<CompletableFuture<Integer>> answers = new ArrayList<>();
        for (int i = 0; i < posts; i++) {
            answers.add(client.sendAsync(HttpRequest.newBuilder(URI.create(over("/sign-in/student"))).POST(HttpRequest.BodyPublishers.ofString("code=none"))
                    .header("Content-Type", "application/x-www-form-urlencoded").build(), HttpResponse.BodyHandlers.discarding()).handle((answer, ended) -> ended == null ? answer.statusCode() : REFUSED_AND_ENDED));
        }
        List<Integer> codes = new ArrayList<>();
        for (CompletableFuture<Integer> answer : answers) {
            codes.add(answer.get());
        }
        return codes;
    }

    /** The beginning of a post whose body does not come. */
    private static Socket begin(Socket socket) throws IOException {
        socket.getOutputStream().write(("POST /sign-in/teacher HTTP/1.1\r\nHost: audio.school.example\r\nContent-Type: application/x-www-form-urlencoded\r\n"
                + "Content-Length: 1000\r\n\r\ne").getBytes(StandardCharsets.US_ASCII));
        return socket;
    }

    /** Whether the other side has neither answered nor ended. */
    private static boolean isOpen(Socket socket) {
        try {
            socket.setSoTimeout(1);
            socket.getInputStream().read();
            return false;
        } catch (SocketTimeoutException nothingYet) {
            return true;
        } catch (IOException ended) {
            return false;
        }
    }

    private long revision(Page page) {
        String timeline = page.context().request().get(over("/episodes/" + episodeOf(page) + "/timeline")).text();
        return JsonParser.parseString(timeline).getAsJsonObject().get("revision").getAsLong();
    }

    private String over(String path) {
        return "https://127.0.0.1:" + tlsPort + path;
    }

    private static HttpResponse<String> get(String address) throws Exception {
        return client().send(HttpRequest.newBuilder(URI.create(address)).header("Accept", "text/html").timeout(Duration.ofSeconds(30)).build(),
                HttpResponse.BodyHandlers.ofString());
    }

    private static HttpClient client() throws Exception {
        return HttpClient.newBuilder().sslContext(trusting()).version(HttpClient.Version.HTTP_1_1).build();
    }

    /** Trusts the certificate that the test has just made, whatever name it is reached by. */
    private static SSLContext trusting() throws Exception {
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(null, new TrustManager[] {new Trusting()}, new SecureRandom());
        return context;
    }

    private static final class Trusting extends X509ExtendedTrustManager {
        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type, Socket socket) {
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type, Socket socket) {
        }

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type, SSLEngine engine) {
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type, SSLEngine engine) {
        }

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type) {
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type) {
        }

        @Override
        public X509Certificate[] getAcceptedIssuers() {
            return new X509Certificate[0];
        }
    }

    private String said() {
        try {
            return Files.readString(folder.resolve("nginx.log"));
        } catch (IOException e) {
            return e.toString();
        }
    }

    private static boolean answers(int port) {
        try (Socket socket = new Socket("127.0.0.1", port)) {
            return socket.isConnected();
        } catch (IOException notYet) {
            return false;
        }
    }

    private static void run(String... command) throws Exception {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes());
        assertThat(process.waitFor()).as(said).isZero();
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        }
    }
}
