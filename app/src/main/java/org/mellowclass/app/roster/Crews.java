package org.mellowclass.app.roster;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.shelf.LayingIn;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Forms the crews of a class. Each begins with a copy of the brief's starter layout. */
@Service
@Transactional
public class Crews {

    private static final int LONGEST_NAME = 60;
    private static final int LONGEST_TITLE = 120;
    private static final int LARGEST_CREW = 5;
    /** Names for crews that are dealt at once. */
    private static final List<String> BIRDS = List.of("Avocet", "Bittern", "Curlew", "Dipper", "Egret", "Fulmar", "Goldfinch",
            "Heron", "Ibis", "Jackdaw", "Kittiwake", "Lapwing", "Merlin", "Nightjar", "Osprey", "Plover", "Quail", "Redshank",
            "Sanderling", "Tern", "Ouzel", "Wagtail", "Yellowhammer", "Knot", "Dunlin", "Godwit", "Shelduck", "Turnstone",
            "Whimbrel", "Wheatear");

    private final RosterMapper roster;
    private final Access access;
    private final SchoolOffice office;
    private final Briefs briefs;
    private final LayingIn layingIn;
    private final LiveEvents live;

    Crews(RosterMapper roster, Access access, SchoolOffice office, Briefs briefs, LayingIn layingIn, LiveEvents live) {
        this.roster = roster;
        this.access = access;
        this.office = office;
        this.briefs = briefs;
        this.layingIn = layingIn;
        this.live = live;
    }

    @Transactional(readOnly = true)
    public List<Crew> ofClass(Person viewer, long classId) {
        access.taughtClass(viewer, classId);
        return roster.crews(classId);
    }

    /** Makes a crew without students yet, whose bench holds the starter layout; returns its episode's id. */
    public long add(Person viewer, long classId, String name, String title) {
        access.taughtClass(viewer, classId);
        String checked = Fields.required(name, LONGEST_NAME, "roster.CREW_NAME");
        long episodeId;
        try {
            episodeId = office.addCrew(classId, checked, Fields.required(title, LONGEST_TITLE, "roster.TITLE"), List.of());
        } catch (DuplicateKeyException taken) {
            throw Refusal.conflict("roster.CREW_TAKEN", checked);
        }
        List<LayingIn.Placed> starter = briefs.starter(viewer, classId);
        if (!starter.isEmpty()) {
            layingIn.begin(viewer, episodeId, starter);
        }
        changed(classId);
        return episodeId;
    }

    /** Moves a student to a crew of the class, or out of all of them (0). Parts that they had are free again. */
    public void move(Person viewer, long classId, long studentId, long crewId) {
        access.taughtClass(viewer, classId);
        Student student = roster.students(classId).stream().filter(it -> it.id() == studentId).findFirst().orElseThrow(NotFound::new);
        if (Objects.equals(student.crewId(), crewId == 0 ? null : crewId)) {
            return;
        }
        if (crewId != 0) {
            requireOfClass(crewId, classId);
        }
        roster.giveBackParts(classId, studentId);
        roster.leaveCrews(classId, studentId);
        if (crewId != 0) {
            roster.joinCrew(crewId, studentId);
        }
        changed(classId);
    }

    /** Names a crew and the episode it makes. */
    public void name(Person viewer, long classId, long crewId, String name, String title) {
        access.taughtClass(viewer, classId);
        requireOfClass(crewId, classId);
        String checked = Fields.required(name, LONGEST_NAME, "roster.CREW_NAME");
        try {
            roster.nameCrew(crewId, checked);
        } catch (DuplicateKeyException taken) {
            throw Refusal.conflict("roster.CREW_TAKEN", checked);
        }
        roster.titleEpisode(crewId, Fields.required(title, LONGEST_TITLE, "roster.TITLE"));
        changed(classId);
    }

    /** Takes a crew away that has made nothing yet; its students are without one then. */
    public void remove(Person viewer, long classId, long crewId) {
        access.taughtClass(viewer, classId);
        requireOfClass(crewId, classId);
        Crew crew = roster.crews(classId).stream().filter(it -> it.id() == crewId).findFirst().orElseThrow(NotFound::new);
        access.hold(crew.episodeId());
        if (crew.touched()) {
            throw Refusal.conflict("roster.CREW_HAS_BEGUN", crew.name());
        }
        roster.emptyCrew(crewId);
        roster.emptyParts(crew.episodeId());
        roster.deleteRevisions(crew.episodeId());
        roster.deleteShelfTakes(crew.episodeId());
        roster.deleteEpisode(crew.episodeId());
        roster.deleteCrew(crewId);
        changed(classId);
    }

    /** Deals the students without a crew into new crews of a size; what is left over makes a smaller one. */
    public void deal(Person viewer, long classId, int size) {
        access.taughtClass(viewer, classId);
        if (size < 1 || size > LARGEST_CREW) {
            throw Refusal.unfit("roster.CREW_SIZE", LARGEST_CREW);
        }
        List<Student> waiting = roster.students(classId).stream().filter(student -> student.crewId() == null).toList();
        Set<String> taken = roster.crews(classId).stream().map(Crew::name).collect(Collectors.toSet());
        int number = 1;
        for (int from = 0; from < waiting.size(); from += size) {
            String name = BIRDS.stream().filter(bird -> !taken.contains(bird)).findFirst().orElse(null);
            while (name == null || taken.contains(name)) {
                name = "Crew " + number++;
            }
            taken.add(name);
            add(viewer, classId, name, name + "’s episode");
            long crewId = crewNamed(classId, name).orElseThrow().id();
            waiting.subList(from, Math.min(waiting.size(), from + size)).forEach(student -> roster.joinCrew(crewId, student.id()));
        }
        changed(classId);
    }

    /** The crew of that name, which is made if there is none. */
    Crew named(Person viewer, long classId, String name) {
        return crewNamed(classId, name).orElseGet(() -> {
            add(viewer, classId, name, name + "’s episode");
            return crewNamed(classId, name).orElseThrow();
        });
    }

    private Optional<Crew> crewNamed(long classId, String name) {
        return roster.crews(classId).stream().filter(crew -> crew.name().equalsIgnoreCase(name)).findFirst();
    }

    private void requireOfClass(long crewId, long classId) {
        if (roster.classOfCrew(crewId).filter(of -> of == classId).isEmpty()) {
            throw new NotFound();
        }
    }

    private void changed(long classId) {
        live.changed(LiveEvents.board(classId), 0);
    }
}
