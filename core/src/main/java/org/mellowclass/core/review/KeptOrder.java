package org.mellowclass.core.review;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;

import org.mellowclass.core.review.Changes.Match;

/**
 * Of stretches that are in both timelines, those that come one behind the other in both, as much sound as can be: a heaviest chain, found by a sweep
 * over the one with a tree of maxima over the other (Fenwick, A new data structure for cumulative frequency tables, 1994).
 */
final class KeptOrder {

    private final List<Match> byStart;
    /** Where stretches end in the earlier timeline, each once, in order: the leaves of the tree. */
    private final long[] ends;
    private final int[] tree;
    private final long[] weight;
    private final int[] before;

    private KeptOrder(List<Match> matches) {
        byStart = matches.stream().sorted(Comparator.comparingLong((Match match) -> match.is().startFrame())).toList();
        ends = matches.stream().mapToLong(match -> match.was().endFrame()).distinct().sorted().toArray();
        tree = new int[ends.length + 1];
        Arrays.fill(tree, -1);
        weight = new long[matches.size()];
        before = new int[matches.size()];
    }

    static List<Match> of(List<Match> matches) {
        return new KeptOrder(matches).heaviest();
    }

    private List<Match> heaviest() {
        Integer[] byEnd = new Integer[byStart.size()];
        Arrays.setAll(byEnd, i -> i);
        Arrays.sort(byEnd, Comparator.comparingLong(i -> byStart.get(i).is().endFrame()));
        int ended = 0;
        int last = -1;
        for (int i = 0; i < byStart.size(); i++) {
            Match match = byStart.get(i);
            while (ended < byEnd.length && byStart.get(byEnd[ended]).is().endFrame() <= match.is().startFrame()) {
                put(byEnd[ended++]);
            }
            before[i] = heaviestUpTo(match.was().startFrame());
            weight[i] = match.is().frames() + (before[i] < 0 ? 0 : weight[before[i]]);
            last = last < 0 || weight[i] > weight[last] ? i : last;
        }
        List<Match> kept = new ArrayList<>();
        for (int i = last; i >= 0; i = before[i]) {
            kept.add(byStart.get(i));
        }
        Collections.reverse(kept);
        return kept;
    }

    private void put(int i) {
        for (int at = Arrays.binarySearch(ends, byStart.get(i).was().endFrame()) + 1; at < tree.length; at += at & -at) {
            tree[at] = heavier(tree[at], i);
        }
    }

    /** The heaviest chain whose last stretch ends at a frame of the earlier timeline or before. */
    private int heaviestUpTo(long frame) {
        int found = Arrays.binarySearch(ends, frame);
        int best = -1;
        for (int at = found >= 0 ? found + 1 : -found - 1; at > 0; at -= at & -at) {
            best = heavier(best, tree[at]);
        }
        return best;
    }

    private int heavier(int one, int other) {
        return one < 0 || other >= 0 && weight[other] > weight[one] ? other : one;
    }
}
