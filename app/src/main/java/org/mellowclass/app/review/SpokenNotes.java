package org.mellowclass.app.review;

import java.io.IOException;
import java.util.List;

import org.mellowclass.app.jobs.Fault;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.sounds.SoundMaking;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeRows;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.SkylinePicture;
import org.springframework.core.io.Resource;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Margin notes that a teacher speaks: recorded as takes are, heard where the note stands. */
@Service
@Transactional
public class SpokenNotes {

    private static final int PICTURE_COLUMNS = 160;

    private final MarginNotes notes;
    private final HandIns handIns;
    private final Recording recording;
    private final TakeRows takes;
    private final TakeSounds sounds;
    private final SoundMaking making;
    private final Access access;

    SpokenNotes(MarginNotes notes, HandIns handIns, Recording recording, TakeRows takes, TakeSounds sounds, SoundMaking making, Access access) {
        this.notes = notes;
        this.handIns = handIns;
        this.recording = recording;
        this.takes = takes;
        this.sounds = sounds;
        this.making = making;
        this.access = access;
    }

    /** A spoken note that has begun. */
    public record Begun(long noteId, Recording.Begun recording) {
    }

    /**
     * Begins to speak a note on a hand-in.
     *
     * @param sampleRate of what will be spoken
     * @param microphone what the browser granted, as JSON
     */
    public Begun begin(Person viewer, long handInId, MarginNotes.Wish wish, int sampleRate, String microphone) {
        HandIn handIn = handIns.find(viewer, handInId);
        access.taughtEpisode(viewer, handIn.episodeId());
        Recording.Begun begun = recording.beginNote(viewer, handIn.episodeId(), sampleRate, microphone);
        return new Begun(notes.addSpoken(viewer, handIn, wish, begun.takeId()), begun);
    }

    /**
     * How far what is spoken in a note has come.
     *
     * @param unfinished null once it has ended
     * @param waitsFor   what it waits for before it is made ready; null if for nothing
     * @param again      whether it can be tried again
     * @param picture    of its level; null until it is ready
     */
    public record Spoken(MarginNote note, Take take, Recording.Unfinished unfinished, Fault waitsFor, boolean again, SkylinePicture picture) {

        /** Whether it will be ready, or something else, by itself. */
        public boolean onItsWay() {
            return take.state() == Take.State.RECORDING || take.state() == Take.State.ARRIVED;
        }
    }

    @Transactional(readOnly = true)
    public Spoken of(Person viewer, long noteId) throws IOException {
        MarginNote note = spoken(viewer, noteId);
        Take take = takes.findWithNotes(note.takeId()).orElseThrow(NotFound::new);
        return new Spoken(note, take, recording.unfinished(List.of(take)).get(take.id()), making.waitsFor(take).orElse(null), making.canBeTriedAgain(take),
                take.ready() ? SkylinePicture.of(sounds.smallSkyline(take, PICTURE_COLUMNS), PICTURE_COLUMNS) : null);
    }

    @Transactional(readOnly = true)
    public Resource sound(Person viewer, long noteId) throws IOException {
        return sounds.sound(takes.findWithNotes(spoken(viewer, noteId).takeId()).filter(Take::ready).orElseThrow(NotFound::new));
    }

    /** Ends one that has broken off, with what has come of it. */
    public MarginNote complete(Person viewer, long noteId) {
        MarginNote note = taught(viewer, noteId);
        recording.completeNote(note.takeId());
        return note;
    }

    /** Tries again to make one ready. */
    public MarginNote again(Person viewer, long noteId) {
        MarginNote note = taught(viewer, noteId);
        making.again(note.takeId().longValue());
        return note;
    }

    private MarginNote taught(Person viewer, long noteId) {
        MarginNote note = spoken(viewer, noteId);
        access.taughtEpisode(viewer, note.episodeId());
        return note;
    }

    private MarginNote spoken(Person viewer, long noteId) {
        MarginNote note = notes.find(viewer, noteId);
        if (!note.spoken()) {
            throw new NotFound();
        }
        return note;
    }
}
