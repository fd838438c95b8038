package org.mellowclass.core.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.util.Arrays;
import java.util.concurrent.CountDownLatch;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.testing.Signal;

class AlongsideTest {

    @Test
    void what_is_measured_alongside_is_the_same_to_the_bit() throws IOException {
        Signal sound = Signal.noise(2, -20, 12, 5);
        LoudnessMeter here = new LoudnessMeter(2);
        LoudnessMeter there = new LoudnessMeter(2);
        try (Alongside alongside = new Alongside(there)) {
            SampleSink.drain(sound.stream(), here, alongside);
        }
        assertThat(there.integrated()).isEqualTo(here.integrated());
        assertThat(there.momentary()).isEqualTo(here.momentary());
    }

    @Test
    void blocks_of_any_length_come_in_order() throws IOException {
        StringBuilder seen = new StringBuilder();
        try (Alongside alongside = new Alongside((block, frames) -> {
            for (int i = 0; i < frames; i++) {
                seen.append((int) block[0][i]).append(' ');
            }
        })) {
            int value = 0;
            for (int length : new int[] {1, 7, 0, 3, 20, 2, 2, 2, 31}) {
                float[][] block = new float[1][length];
                for (int i = 0; i < length; i++) {
                    block[0][i] = value++;
                }
                alongside.accept(block, length);
                Arrays.fill(block[0], -1);
            }
        }
        assertThat(seen.toString()).startsWith("0 1 2 3 4 5 6 7 8 ").endsWith("66 67 ").doesNotContain("-1");
    }

    @Test
    void a_sink_that_fails_is_told_and_nobody_waits_for_it() {
        assertThatThrownBy(() -> {
            try (Alongside alongside = new Alongside((block, frames) -> {
                throw new IOException("full");
            })) {
                for (int i = 0; i < 100; i++) {
                    alongside.accept(new float[1][10], 10);
                }
            }
        }).isInstanceOf(IOException.class).hasRootCauseMessage("full");
    }

    @Test
    void whoever_is_interrupted_while_waiting_ends_and_the_thread_too() throws Exception {
        CountDownLatch stuck = new CountDownLatch(1);
        CountDownLatch never = new CountDownLatch(1);
        Alongside alongside = new Alongside((block, frames) -> {
            stuck.countDown();
            try {
                never.await();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        Throwable[] thrown = new Throwable[1];
        Thread giving = new Thread(() -> {
            try (alongside) {
                while (true) {
                    alongside.accept(new float[1][10], 10);
                }
            } catch (IOException e) {
                thrown[0] = e;
            }
        });
        giving.start();
        stuck.await();
        giving.interrupt();
        giving.join();
        assertThat(thrown[0]).isInstanceOf(InterruptedIOException.class);
    }
}
