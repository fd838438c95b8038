package org.mellowclass.app.jobs;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.util.concurrent.FutureTask;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.Silence;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;

@Timeout(60)
class CourtesyTest {

    private static final float[][] BLOCK = new float[1][64];

    private final Courtesy courtesy = new Courtesy();
    private final RandomAccessSound sound = courtesy.sound(new Silence(1, Long.MAX_VALUE));

    private void read() throws Exception {
        sound.readAt(0, BLOCK, 0, BLOCK[0].length);
    }

    /** Works until it may pause as long as is allowed at all. */
    private static void workLong() {
        work(Courtesy.LONGEST_PAUSE.multipliedBy(2));
    }

    private static void work(Duration duration) {
        long end = System.nanoTime() + duration.toNanos();
        while (System.nanoTime() < end) {
            Thread.onSpinWait();
        }
    }

    @Test
    void aJobGoesOnWhenTheRequestIsAnswered() throws Exception {
        Courtesy patient = new Courtesy(Duration.ofMinutes(1), Duration.ofMinutes(1));
        FutureTask<Long> job = new FutureTask<>(() -> {
            long[] pausedUntil = new long[2];
            patient.work(() -> {
                work(Duration.ofSeconds(2));
                patient.asked();
                pausedUntil[1] = System.nanoTime() + Duration.ofSeconds(2).toNanos();
                patient.giveWay();
                pausedUntil[0] = System.nanoTime();
            });
            return pausedUntil[1] - pausedUntil[0];
        });
        Thread worker = new Thread(job);
        worker.start();
        while (worker.getState() != Thread.State.TIMED_WAITING && worker.isAlive()) {
            Thread.onSpinWait();
        }
        assertThat(worker.isAlive()).as("it pauses").isTrue();
        patient.answered();

        assertThat(job.get()).as("what was left of its pause, in nanoseconds").isPositive();
    }

    @Test
    void aRequestThatIsNeverAnsweredHoldsAJobForATenthOfASecondOnce() throws Exception {
        courtesy.work(() -> {
            workLong();
            courtesy.asked();
            long start = System.nanoTime();

            assertThat(courtesy.giveWay()).isTrue();
            assertThat(System.nanoTime() - start).isGreaterThanOrEqualTo(Courtesy.LONGEST_REQUEST.toNanos());
            workLong();
            assertThat(courtesy.giveWay()).isFalse();
        });
    }

    @Test
    void aJobNeverPausesLongerThanItHasWorkedHoweverMuchIsAsked() throws Exception {
        courtesy.work(() -> {
            long start = System.nanoTime();
            long pausedNs = 0;
            for (int i = 0; i < 400; i++) {
                work(Duration.ofMillis(1));
                courtesy.asked();
                long before = System.nanoTime();
                read();
                pausedNs += System.nanoTime() - before;
            }
            long wholeNs = System.nanoTime() - start;

            // 400 pauses, of which each may end late by what a processor takes to come back to it
            assertThat(pausedNs).isGreaterThan(wholeNs / 4).isLessThan(wholeNs * 3 / 4);
        });
    }

    @Test
    void withoutRequestsAndOutsideOfJobsNothingIsWaitedFor() throws Exception {
        courtesy.asked();
        assertThat(courtesy.giveWay()).as("a page's own reading").isFalse();
        courtesy.answered();
        courtesy.work(() -> {
            workLong();
            assertThat(courtesy.giveWay()).as("nobody asks").isFalse();
        });
    }

    @Test
    void aJobWhoseTimeIsOverStaysInterrupted() throws Exception {
        courtesy.work(() -> {
            workLong();
            courtesy.asked();
            Thread.currentThread().interrupt();
            courtesy.giveWay();

            assertThat(Thread.interrupted()).isTrue();
        });
    }

    @Test
    void everyRequestCountsUntilItIsAnsweredAlsoIfItFails() throws Exception {
        Courtesy.Requests requests = new Courtesy.Requests(courtesy);
        courtesy.work(() -> {
            workLong();
            assertThatThrownBy(() -> requests.doFilter(new MockHttpServletRequest(), new MockHttpServletResponse(), (request, response) -> {
                assertThat(courtesy.giveWay()).isTrue();
                throw new IllegalStateException("a page that failed");
            })).hasMessage("a page that failed");
            workLong();
            assertThat(courtesy.giveWay()).isFalse();
        });
    }
}
