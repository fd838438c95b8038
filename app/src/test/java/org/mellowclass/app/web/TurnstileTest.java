package org.mellowclass.app.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;

import org.junit.jupiter.api.Test;

class TurnstileTest {

    @Test
    void no_more_than_its_places_are_in_at_once_and_everybody_gets_in() {
        Turnstile turnstile = new Turnstile(3, Duration.ofSeconds(30));
        AtomicInteger inside = new AtomicInteger();
        AtomicInteger most = new AtomicInteger();
        var threads = Executors.newFixedThreadPool(20);
        List<CompletableFuture<Integer>> all = IntStream.range(0, 100).mapToObj(i -> CompletableFuture.supplyAsync(() -> {
            try {
                return turnstile.pass(() -> {
                    most.accumulateAndGet(inside.incrementAndGet(), Math::max);
                    Thread.yield();
                    inside.decrementAndGet();
                    return i;
                });
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }, threads)).toList();
        assertThat(all.stream().map(CompletableFuture::join)).hasSize(100).doesNotHaveDuplicates();
        assertThat(most.get()).isLessThanOrEqualTo(3);
        threads.shutdown();
    }

    @Test
    void who_waits_too_long_is_told_so_and_a_failure_frees_its_place() throws Exception {
        Turnstile turnstile = new Turnstile(1, Duration.ofMillis(50));
        CountDownLatch go = new CountDownLatch(1);
        CountDownLatch in = new CountDownLatch(1);
        CompletableFuture<Object> first = CompletableFuture.supplyAsync(() -> {
            try {
                return turnstile.pass(() -> {
                    in.countDown();
                    try {
                        go.await();
                    } catch (InterruptedException e) {
                        throw new IOException(e);
                    }
                    throw new IOException("failed");
                });
            } catch (IOException e) {
                return e.getMessage();
            }
        });
        in.await();
        assertThatThrownBy(() -> turnstile.pass(() -> "second")).isInstanceOf(Refusal.class).hasMessage("busy");
        go.countDown();
        assertThat(first.join()).isEqualTo("failed");
        assertThat(turnstile.<String>pass(() -> "third")).isEqualTo("third");
    }
}
