package org.mellowclass.core.sound;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;

/**
 * Hands what it takes on to other sinks in a thread of its own, in order, while the next block is being made: where a person waits,
 * one core renders and another measures, to the same bits. What the sinks have found may be read once it is closed.
 */
public final class Alongside implements SampleSink, AutoCloseable {

    private static final int BLOCKS = 4;

    /** @param frames 0 in the one that ends it */
    private record Block(float[][] samples, int frames) {
    }

    private final BlockingQueue<Block> given = new ArrayBlockingQueue<>(BLOCKS);
    private final BlockingQueue<float[][]> free = new ArrayBlockingQueue<>(BLOCKS);
    private final Thread worker;
    private int arrays;
    private volatile Throwable failure;
    private boolean closed;

    public Alongside(SampleSink... sinks) {
        SampleSink[] all = sinks.clone();
        worker = new Thread(() -> work(all), "alongside");
        worker.setDaemon(true);
        worker.start();
    }

    /** @throws IOException if a sink has failed, with its failure as the cause */
    @Override
    public void accept(float[][] block, int frames) throws IOException {
        check();
        if (frames == 0) {
            return;
        }
        float[][] copy = array(block);
        for (int c = 0; c < block.length; c++) {
            copy[c] = copy[c].length < frames ? new float[block[c].length] : copy[c];
            System.arraycopy(block[c], 0, copy[c], 0, frames);
        }
        put(new Block(copy, frames));
    }

    private float[][] array(float[][] like) throws IOException {
        if (arrays < BLOCKS) {
            arrays++;
            return new float[like.length][like[0].length];
        }
        try {
            return free.take();
        } catch (InterruptedException e) {
            throw interrupted();
        }
    }

    private void put(Block block) throws IOException {
        try {
            given.put(block);
        } catch (InterruptedException e) {
            throw interrupted();
        }
    }

    private static IOException interrupted() {
        Thread.currentThread().interrupt();
        return new InterruptedIOException("ended while another thread measures");
    }

    private void check() throws IOException {
        if (failure != null) {
            throw new IOException("a sink failed", failure);
        }
    }

    /** After a failure it goes on taking, so that nobody waits for it. */
    private void work(SampleSink[] sinks) {
        try {
            for (Block block = given.take(); block.frames > 0; block = given.take()) {
                try {
                    for (int i = 0; failure == null && i < sinks.length; i++) {
                        sinks[i].accept(block.samples, block.frames);
                    }
                } catch (IOException | RuntimeException | Error e) {
                    failure = e;
                }
                free.put(block.samples);
            }
        } catch (InterruptedException ended) {
            Thread.currentThread().interrupt();
        }
    }

    /** Waits until everything has been taken; whoever is interrupted leaves the thread to end by itself. */
    @Override
    public void close() throws IOException {
        if (closed) {
            return;
        }
        closed = true;
        try {
            given.put(new Block(null, 0));
            worker.join();
        } catch (InterruptedException e) {
            worker.interrupt();
            throw interrupted();
        }
        check();
    }
}
