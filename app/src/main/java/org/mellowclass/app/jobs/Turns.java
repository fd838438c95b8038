package org.mellowclass.app.jobs;

import java.util.HashMap;
import java.util.Map;

import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/** Lets each crew fill all threads for background work but one: however much it asks for, the others' work goes on. */
@Component
class Turns {

    private final int most;
    private final Map<String, Integer> running = new HashMap<>();

    Turns(@Value("${db-scheduler.threads}") int threads) {
        this.most = Math.max(1, threads - 1);
    }

    /** Takes a turn that has to be given back; false if all turns of its owner are taken. */
    synchronized boolean take(String owner) {
        if (running.getOrDefault(owner, 0) >= most) {
            return false;
        }
        running.merge(owner, 1, Integer::sum);
        return true;
    }

    synchronized void giveBack(String owner) {
        running.computeIfPresent(owner, (same, count) -> count == 1 ? null : count - 1);
    }
}
