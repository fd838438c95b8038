package org.mellowclass.app.board;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.feed.Publication;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.recording.RecentPeaks;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.soundcheck.SoundChecks;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.SkylinePicture;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.soundcheck.SoundCheck;
import org.mellowclass.core.soundcheck.Verdict;
import org.springframework.stereotype.Service;

/** The teacher's home: every crew's episode, where it stands and what waits for whom. */
@Service
public class ClassBoard {

    private static final int PICTURE_COLUMNS = 120;

    private final EpisodesOfClass episodes;
    private final Access access;
    private final HandIns handIns;
    private final AirDesk airDesk;
    private final TakeShelf takes;
    private final TakeSounds sounds;
    private final Recording recording;
    private final SoundChecks checks;
    /** What a key of the store means never changes. */
    private final Cache<String, SkylinePicture> pictures = Caffeine.newBuilder().maximumSize(1000).build();

    ClassBoard(EpisodesOfClass episodes, Access access, HandIns handIns, AirDesk airDesk, TakeShelf takes, TakeSounds sounds, Recording recording, SoundChecks checks) {
        this.episodes = episodes;
        this.access = access;
        this.handIns = handIns;
        this.airDesk = airDesk;
        this.takes = takes;
        this.sounds = sounds;
        this.recording = recording;
        this.checks = checks;
    }

    /** An episode of the class with its crew. */
    record Row(long episodeId, String title, long crewId, String crewName, Instant openedAt) {
    }

    @Mapper
    interface EpisodesOfClass {

        @Select("""
                SELECT e.id AS episode_id, e.title, crew.id AS crew_id, crew.name AS crew_name, e.opened_at
                FROM episode e JOIN crew ON crew.id = e.crew_id
                WHERE crew.class_id = #{classId} ORDER BY crew.id
                """)
        List<Row> find(long classId);
    }

    /**
     * One line of the board.
     *
     * @param handIn the newest, or null
     * @param running  the last peaks of the recording that goes on, or null
     * @param openedAt when somebody of the crew last opened the episode, or null
     * @param sound    the newest sound check
     * @param picture the newest hand-in's skyline, or the newest take's, or null where there is neither
     */
    public record Line(long episodeId, String title, long crewId, String crewName, Stage stage, HandIn handIn,
                       RecentPeaks running, Instant openedAt, SkylinePicture picture, long good, long check, long fix, SoundCheck sound) {

        /** The value of a reading of the newest check; null where there is none. */
        public Double value(Reading.Kind kind) {
            return sound.readings().stream().filter(reading -> reading.kind() == kind).findFirst().map(Reading::value).orElse(null);
        }

        /** How a reading stands; does not apply where there is none. */
        public Verdict verdict(Reading.Kind kind) {
            return sound.readings().stream().filter(reading -> reading.kind() == kind).findFirst().map(Reading::verdict).orElse(Verdict.DOES_NOT_APPLY);
        }

        /** Whether the teacher has something to hear. */
        public boolean waitsForTeacher() {
            return stage == Stage.HANDED_IN && handIn.ready();
        }

        /** Whose move it is. */
        public Waiting waitsFor() {
            return switch (stage) {
                case HANDED_IN -> handIn.ready() ? Waiting.YOU : Waiting.MIXDOWN;
                case CLEARED -> Waiting.YOU;
                case MAKING, ANOTHER_PASS -> Waiting.CREW;
                case ON_AIR, OFF_AIR -> Waiting.NOBODY;
            };
        }

        /** Since when the teacher is waited for; null if they are not. */
        public Instant waitingSince() {
            return waitsFor() != Waiting.YOU ? null : stage == Stage.CLEARED ? handIn.decidedAt() : handIn.createdAt();
        }

        /** Whether the recording that goes on is in trouble that can still be helped. */
        public boolean needsHand() {
            return running != null && running.word() != RecentPeaks.Word.GOOD && running.word() != RecentPeaks.Word.LISTENING;
        }
    }

    /** Whom an episode waits for, the teacher first. */
    public enum Waiting { YOU, MIXDOWN, CREW, NOBODY }

    /** How the lines can be sorted. */
    public enum Order {
        CREW(Comparator.comparing(Line::crewName, String.CASE_INSENSITIVE_ORDER)),
        STAGE(Comparator.comparing(Line::stage)),
        SOUND(Comparator.comparing((Line line) -> !line.needsHand()).thenComparing(Line::fix, Comparator.reverseOrder())
                .thenComparing(Line::check, Comparator.reverseOrder())),
        WAITING(Comparator.comparing(Line::waitsFor).thenComparing(Line::waitingSince, Comparator.nullsLast(Comparator.naturalOrder())));

        private final Comparator<Line> comparator;

        Order(Comparator<Line> comparator) {
            this.comparator = comparator;
        }

        public List<Line> sorted(List<Line> lines) {
            return lines.stream().sorted(comparator).toList();
        }
    }

    public List<Line> lines(Person viewer, SchoolClass schoolClass) {
        access.taughtClass(viewer, schoolClass.id());
        Map<Long, HandIn> newest = handIns.newestOfClass(schoolClass).stream()
                .collect(Collectors.toMap(HandIn::episodeId, Function.identity()));
        Map<Long, Publication> publications = airDesk.newestOfClass(schoolClass).stream()
                .collect(Collectors.toMap(Publication::episodeId, Function.identity()));
        Map<Long, Take> newestTakes = takes.newestOfClass(schoolClass);
        Map<Long, String> pictureNames = sounds.skylineNames(schoolClass);
        Map<Long, SoundChecks.OfPage> pages = checks.newestOfClass(schoolClass);
        Map<Long, RecentPeaks> running = recording.runningOfClass(schoolClass);
        return episodes.find(schoolClass.id()).stream().map(row -> {
            HandIn handIn = newest.get(row.episodeId());
            Take take = newestTakes.get(row.episodeId());
            Stage stage = Stage.of(handIn, publications.get(row.episodeId()));
            SoundCheck check = check(stage, handIn, Optional.ofNullable(pages.get(row.episodeId())).map(SoundChecks.OfPage::check));
            return new Line(row.episodeId(), row.title(), row.crewId(), row.crewName(), stage, handIn, running.get(row.episodeId()), row.openedAt(),
                    picture(handIn, take, take == null ? null : pictureNames.get(take.id())),
                    check.count(Verdict.GOOD), check.count(Verdict.CHECK), check.count(Verdict.FIX), check);
        }).toList();
    }

    /** While a crew works, that of its page, so that trouble is seen while it can be helped; otherwise that of its hand-in. */
    private SoundCheck check(Stage stage, HandIn handIn, Optional<SoundCheck> ofPage) {
        boolean working = stage == Stage.MAKING || stage == Stage.ANOTHER_PASS;
        SoundCheck handedIn = handIn != null && handIn.ready() ? handIns.report(handIn) : SoundCheck.NONE;
        return working || handedIn.equals(SoundCheck.NONE) ? ofPage.orElse(handedIn) : handedIn;
    }

    private SkylinePicture picture(HandIn handIn, Take take, String nameOfPicture) {
        try {
            String key = handIn != null && handIn.ready() ? handIn.skylineKey() : take == null ? null : nameOfPicture;
            SkylinePicture picture = key == null ? null : pictures.getIfPresent(key);
            if (key != null && picture == null) {
                picture = SkylinePicture.of(handIn != null && handIn.ready() ? handIns.skyline(handIn) : sounds.smallSkyline(take, PICTURE_COLUMNS), PICTURE_COLUMNS);
                pictures.put(key, picture);
            }
            return picture;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
