package org.mellowclass.app.jobs;

import java.io.IOException;
import java.time.Duration;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.SampleSource;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Lets jobs pause between two blocks of sound while somebody waits for a page. A lower priority alone does not do: a thread that runs
 * is let run on for milliseconds, and a request comes back from the database dozens of times, each time to a processor that is taken.
 *
 * <p>Whoever asks much does not stop the jobs: a job never pauses longer than it has worked.
 */
@Component
class Courtesy {

    /** A request that takes longer waits for something else than a processor: for a slow network, or for what is being uploaded. */
    static final Duration LONGEST_REQUEST = Duration.ofMillis(100);
    /** What a job that has worked long may pause at a time. */
    static final Duration LONGEST_PAUSE = Duration.ofMillis(200);

    private final long longestRequestNs;
    private final long longestPauseNs;
    /** Of a thread that works on a job. */
    private final ThreadLocal<Worker> workers = new ThreadLocal<>();
    /** Requests that are not answered yet. */
    private int waiting;
    private long newestAtNs;

    Courtesy() {
        this(LONGEST_REQUEST, LONGEST_PAUSE);
    }

    Courtesy(Duration longestRequest, Duration longestPause) {
        this.longestRequestNs = longestRequest.toNanos();
        this.longestPauseNs = longestPause.toNanos();
    }

    /** Tells of every request, before all else that is done about it. */
    @Component
    @Order(Ordered.HIGHEST_PRECEDENCE)
    static final class Requests extends OncePerRequestFilter {

        private final Courtesy courtesy;

        Requests(Courtesy courtesy) {
            this.courtesy = courtesy;
        }

        @Override
        protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws ServletException, IOException {
            courtesy.asked();
            try {
                chain.doFilter(request, response);
            } finally {
                courtesy.answered();
            }
        }
    }

    /** What a job may still pause: as much as it has worked since. */
    private static final class Worker {
        private long leftNs;
        private long workedSinceNs = System.nanoTime();

        long pauseNs(long nowNs, long longestNs) {
            leftNs = Math.min(longestNs, leftNs + nowNs - workedSinceNs);
            workedSinceNs = nowNs;
            return leftNs;
        }

        void paused(long nowNs) {
            leftNs -= nowNs - workedSinceNs;
            workedSinceNs = nowNs;
        }
    }

    synchronized void asked() {
        waiting++;
        newestAtNs = System.nanoTime();
    }

    synchronized void answered() {
        waiting--;
        notifyAll();
    }

    /** Does a job's work in this thread. */
    void work(TimeLimit.Work work) throws Exception {
        workers.set(new Worker());
        try {
            work.run();
        } finally {
            workers.remove();
        }
    }

    /** A sound that a job reads courteously; anybody else reads it as it is. */
    SampleSource source(SampleSource source) {
        return new CourteousSource(this, source);
    }

    /** As {@link #source}, of a sound that is read at any place. */
    RandomAccessSound sound(RandomAccessSound sound) {
        return new CourteousSound(this, sound);
    }

    /**
     * Returns at once if this thread works on no job; what interrupts a job ends its pause.
     *
     * @return whether it has paused
     */
    boolean giveWay() {
        Worker worker = workers.get();
        return worker != null && pause(worker);
    }

    private synchronized boolean pause(Worker worker) {
        long now = System.nanoTime();
        long end = now + worker.pauseNs(now, longestPauseNs);
        boolean paused = false;
        while (waiting > 0) {
            long leftNs = Math.min(end, newestAtNs + longestRequestNs) - System.nanoTime();
            if (leftNs <= 0) {
                break;
            }
            try {
                paused = true;
                wait(leftNs / 1_000_000, (int) (leftNs % 1_000_000));
            } catch (InterruptedException ended) {
                Thread.currentThread().interrupt();
                break;
            }
        }
        worker.paused(System.nanoTime());
        return paused;
    }

    private record CourteousSource(Courtesy courtesy, SampleSource source) implements SampleSource {

        @Override
        public int channels() {
            return source.channels();
        }

        @Override
        public int sampleRate() {
            return source.sampleRate();
        }

        @Override
        public int read(float[][] into, int offset, int frames) throws IOException {
            courtesy.giveWay();
            return source.read(into, offset, frames);
        }

        @Override
        public void close() throws IOException {
            source.close();
        }
    }

    private record CourteousSound(Courtesy courtesy, RandomAccessSound sound) implements RandomAccessSound {

        @Override
        public int channels() {
            return sound.channels();
        }

        @Override
        public long frames() {
            return sound.frames();
        }

        @Override
        public void readAt(long fromFrame, float[][] into, int offset, int frames) throws IOException {
            courtesy.giveWay();
            sound.readAt(fromFrame, into, offset, frames);
        }

        @Override
        public void close() throws IOException {
            sound.close();
        }
    }
}
