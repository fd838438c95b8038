package org.mellowclass.app.brief;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.List;
import java.util.OptionalLong;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.brief.BriefDraft.ClipDraft;
import org.mellowclass.app.brief.BriefDraft.LineDraft;
import org.mellowclass.app.brief.BriefDraft.PartDraft;
import org.mellowclass.app.roster.Classes;
import org.mellowclass.app.shelf.Shelf;
import org.mellowclass.app.shelf.ShelfSound;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.testing.Signal;
import org.springframework.beans.factory.annotation.Autowired;

@AppTest
class BriefsTest {

    @Autowired
    private Briefs briefs;
    @Autowired
    private Shelf shelf;
    @Autowired
    private Classes classes;
    @Autowired
    private Schools schools;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    private static BriefDraft with(BriefDraft d, double lufs, List<PartDraft> parts, List<LineDraft> lines, List<ClipDraft> starter, boolean evenSo) {
        return new BriefDraft(d.version(), d.project(), d.story(), lufs, d.ceilingDbtp(), d.shortest(), d.longest(), d.dueDay(),
                d.outputFormat(), d.recipe(), d.actions(), parts, lines, List.of(new BriefDraft.CriterionDraft("Clear", 5, "Every word.", "5 all of it; 0 not yet")), starter, evenSo);
    }

    private List<String> change(BriefDraft draft) {
        return briefs.change(school.teacher(), school.classId(), draft).stream().map(BriefChanges.Change::code).toList();
    }

    @Test
    void rows_keep_their_ids_through_changes_and_lines_follow_their_parts() {
        change(with(schools.draft(school), -16, List.of(new PartDraft(0, "Intro", "0:05", "0:10"), new PartDraft(0, "Ending", "0:05", "0:10")),
                List.of(new LineDraft(0, 1, "Goodbye.", "Bell"), new LineDraft(0, 0, "Hello.", "")), List.of(), false));
        WholeBrief before = briefs.whole(school.classId());
        Part ending = before.parts().get(1);
        assertThat(before.lines().get(0).partId()).isEqualTo(ending.id());

        change(with(schools.draft(school), -16, List.of(new PartDraft(ending.id(), "The end", "0:05", "0:10")),
                List.of(new LineDraft(before.lines().get(0).id(), 0, "Farewell.", "Bell")), List.of(), false));
        WholeBrief after = briefs.whole(school.classId());
        assertThat(after.parts()).containsExactly(new Part(ending.id(), "The end", ending.shortestFrames(), ending.longestFrames()));
        assertThat(after.lines()).containsExactly(new ScriptLine(before.lines().get(0).id(), ending.id(), "Farewell.", "Bell"));
    }

    @Test
    void once_crews_have_begun_a_change_says_first_what_changes_for_whom() throws IOException {
        long ending = schools.part(school, "Ending");
        briefs.give(school.teacher(), school.episodeId(), ending, school.student().id());
        assertThat(change(with(schools.draft(school), -20, List.of(), List.of(), List.of(), false))).as("nobody has begun").isEmpty();

        ending = schools.part(school, "Ending");
        briefs.give(school.teacher(), school.episodeId(), ending, school.student().id());
        schools.readyTake(school, Schools.speech(), "Noor");
        List<BriefChanges.Change> asked = briefs.change(school.teacher(), school.classId(),
                with(schools.draft(school), -16, List.of(), List.of(new LineDraft(0, -1, "Hello.", "")), List.of(), false));
        assertThat(asked).extracting(BriefChanges.Change::code).containsExactlyInAnyOrder("HOUSE_SOUND", "PART_GONE_FROM", "SCRIPT", "RUBRIC");
        assertThat(asked).filteredOn(it -> it.code().equals("PART_GONE_FROM")).singleElement()
                .satisfies(it -> assertThat(it.arguments()).containsExactly("Ending", "Noor (Kingfisher)"));
        assertThat(briefs.ofClass(school.classId()).loudnessLufs()).as("nothing is written yet").isEqualTo(-20);
        assertThat(change(with(schools.draft(school), -16, List.of(), List.of(), List.of(), true))).isEmpty();
        assertThat(briefs.ofClass(school.classId()).loudnessLufs()).isEqualTo(-16);
    }

    @Test
    void the_brief_says_how_many_actions_are_in_sight_and_crews_are_told_of_a_change() throws IOException {
        schools.readyTake(school, Schools.speech(), "Noor");
        BriefDraft d = schools.draft(school);
        assertThat(d.actions()).isEqualTo(Brief.Actions.USUAL);
        BriefDraft few = new BriefDraft(d.version(), d.project(), d.story(), d.loudnessLufs(), d.ceilingDbtp(), d.shortest(), d.longest(), d.dueDay(),
                d.outputFormat(), d.recipe(), Brief.Actions.FEW, d.parts(), d.lines(), d.rubric(), d.starter(), false);
        assertThat(change(few)).contains("ACTIONS");
    }

    @Test
    void of_two_browsers_the_second_is_told_and_overwrites_nothing() {
        BriefDraft first = with(schools.draft(school), -18, List.of(), List.of(), List.of(), true);
        BriefDraft second = with(schools.draft(school), -23, List.of(), List.of(), List.of(), true);
        change(first);
        assertThatThrownBy(() -> change(second)).hasMessage("brief.CHANGED_MEANWHILE");
        assertThat(briefs.ofClass(school.classId()).loudnessLufs()).isEqualTo(-18);
    }

    @Test
    void a_copied_brief_brings_its_sounds_to_the_other_class() throws IOException {
        long bell = schools.shelfSound(school, "Bell", Signal.sine(1, 800, -12, 2));
        shelf.addExcerpt(school.teacher(), bell, "start", OptionalLong.of(0), OptionalLong.of(24_000));
        long excerpt = shelf.excerpts(school.teacher(), school.classId()).get(bell).get(0).id();
        change(with(schools.draft(school), -20, List.of(new PartDraft(0, "Intro", "0:05", "0:10")), List.of(new LineDraft(0, 0, "Hello.", "Bell")),
                List.of(new ClipDraft("Music", bell, excerpt, "0:02", -3)), true));
        long other = classes.add(school.teacher(), "9 Curlew");
        assertThat(briefs.copy(school.teacher(), school.classId(), other, false)).isEmpty();

        WholeBrief copy = briefs.whole(other);
        ShelfSound sound = shelf.find(school.teacher(), other, "").get(0);
        assertThat(copy.brief().loudnessLufs()).isEqualTo(-20);
        assertThat(copy.lines().get(0).partId()).isEqualTo(copy.parts().get(0).id());
        assertThat(copy.starter().get(0).soundId()).isEqualTo(sound.id()).isNotEqualTo(bell);
        assertThat(shelf.excerpt(sound, copy.starter().get(0).excerptId()).endFrame()).isEqualTo(24_000);
    }

    @Test
    void numbers_that_make_no_sense_are_refused_in_words() {
        assertThatThrownBy(() -> change(with(schools.draft(school), 3, List.of(), List.of(), List.of(), true))).hasMessage("brief.HOUSE_SOUND");
        assertThatThrownBy(() -> change(with(schools.draft(school), -16, List.of(new PartDraft(0, "Intro", "soon", "0:10")), List.of(), List.of(), true)))
                .hasMessage("brief.TIME");
        assertThatThrownBy(() -> change(with(schools.draft(school), -16, List.of(new PartDraft(0, "Intro", "0:20", "0:10")), List.of(), List.of(), true)))
                .hasMessage("brief.LENGTH");
    }
}
