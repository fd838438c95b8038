package org.mellowclass.app.bench;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;

import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Takes somebody's name out of every revision of an episode that is held: tracks are named after who speaks, and so are flags. */
@Service
@Transactional(propagation = Propagation.MANDATORY)
public class ForgottenNames {

    private final RevisionMapper revisions;
    private final TimelineCodec codec;
    private final Bench bench;

    ForgottenNames(RevisionMapper revisions, TimelineCodec codec, Bench bench) {
        this.revisions = revisions;
        this.codec = codec;
        this.bench = bench;
    }

    /**
     * Writes the timelines and edits of an episode anew. Returns the hashes of timelines that have changed, with what they are now: whoever
     * else names one has to follow, and then they are {@link #drop dropped}.
     *
     * @param told what becomes of a name
     */
    public Map<String, String> forget(long episodeId, UnaryOperator<String> told) {
        Map<String, String> changed = new HashMap<>();
        for (String hash : revisions.hashes(episodeId)) {
            Timeline before = bench.timeline(hash);
            Timeline after = renamed(before, told);
            if (!after.equals(before)) {
                TimelineCodec.Written written = codec.written(after);
                revisions.addTimeline(written.hash(), TimelineCodec.FORMAT_VERSION, written.deflated());
                revisions.retell(episodeId, hash, written.hash());
                changed.put(hash, written.hash());
            }
        }
        for (RevisionMapper.StoredEdit edit : revisions.edits(episodeId)) {
            String after = codec.renamed(edit.edit(), told);
            if (!after.equals(edit.edit())) {
                revisions.retellEdit(episodeId, edit.seq(), after);
            }
        }
        revisions.versions(episodeId).stream().filter(version -> !told.apply(version.name()).equals(version.name()))
                .forEach(version -> revisions.nameVersion(episodeId, version.revisionSeq(), told.apply(version.name())));
        return changed;
    }

    /** Deletes those timelines that nothing names any more. */
    public void drop(Collection<String> hashes) {
        hashes.forEach(revisions::dropTimeline);
    }

    private static Timeline renamed(Timeline timeline, UnaryOperator<String> told) {
        Set<String> taken = new HashSet<>();
        timeline.tracks().stream().map(Track::name).filter(name -> told.apply(name).equals(name)).forEach(taken::add);
        List<Track> tracks = timeline.tracks().stream().map(track -> {
            String name = told.apply(track.name());
            return name.equals(track.name()) ? track : track.named(free(name, taken));
        }).toList();
        List<Flag> flags = timeline.flags().stream().map(flag -> flag.named(told.apply(flag.name()))).toList();
        return new Timeline(tracks, flags, timeline.nextId());
    }

    /** A name that no other track has. */
    private static String free(String name, Set<String> taken) {
        String candidate = name;
        for (int number = 2; !taken.add(candidate); number++) {
            candidate = name + " " + number;
        }
        return candidate;
    }
}
