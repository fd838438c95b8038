package org.mellowclass.app.board;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;

import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.feed.Publication;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.SkylinePicture;
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

    ClassBoard(EpisodesOfClass episodes, Access access, HandIns handIns, AirDesk airDesk, TakeShelf takes) {
        this.episodes = episodes;
        this.access = access;
        this.handIns = handIns;
        this.airDesk = airDesk;
        this.takes = takes;
    }

    /** An episode of the class with its crew. */
    record Row(long episodeId, String title, String crewName) {
    }

    @Mapper
    interface EpisodesOfClass {

        @Select("""
                SELECT e.id AS episode_id, e.title, crew.name AS crew_name
                FROM episode e JOIN crew ON crew.id = e.crew_id
                WHERE crew.class_id = #{classId} ORDER BY crew.id
                """)
        List<Row> find(long classId);
    }

    /**
     * One line of the board.
     *
     * @param handIn the newest, or null
     * @param picture the newest hand-in's skyline, or the newest take's, or null where there is neither
     */
    public record Line(long episodeId, String title, String crewName, Stage stage, HandIn handIn, SkylinePicture picture,
                       long good, long check, long fix) {

        /** Whether the teacher has something to hear. */
        public boolean waitsForTeacher() {
            return stage == Stage.HANDED_IN && handIn.ready();
        }
    }

    public List<Line> lines(Person viewer, SchoolClass schoolClass) {
        access.taughtClass(viewer, schoolClass.id());
        Map<Long, HandIn> newest = handIns.newestOfClass(schoolClass).stream()
                .collect(Collectors.toMap(HandIn::episodeId, Function.identity()));
        Map<Long, Publication> publications = airDesk.newestOfClass(schoolClass).stream()
                .collect(Collectors.toMap(Publication::episodeId, Function.identity()));
        Map<Long, Take> newestTakes = takes.newestOfClass(schoolClass);
        return episodes.find(schoolClass.id()).stream().map(row -> {
            HandIn handIn = newest.get(row.episodeId());
            SoundCheck check = handIn != null && handIn.ready() ? handIns.report(handIn) : new SoundCheck(List.of());
            return new Line(row.episodeId(), row.title(), row.crewName(),
                    Stage.of(handIn, publications.get(row.episodeId())), handIn,
                    picture(handIn, newestTakes.get(row.episodeId())),
                    check.count(Verdict.GOOD), check.count(Verdict.CHECK), check.count(Verdict.FIX));
        }).toList();
    }

    private SkylinePicture picture(HandIn handIn, Take take) {
        try {
            if (handIn != null && handIn.ready()) {
                return SkylinePicture.of(handIns.skyline(handIn), PICTURE_COLUMNS);
            }
            return take == null ? null : SkylinePicture.of(takes.smallSkyline(take), PICTURE_COLUMNS);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
