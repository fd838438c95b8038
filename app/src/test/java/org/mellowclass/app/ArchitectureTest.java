package org.mellowclass.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import org.apache.ibatis.annotations.Mapper;
import org.springframework.stereotype.Controller;

@AnalyzeClasses(packages = "org.mellowclass.app", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

    @ArchTest
    static final ArchRule features_do_not_go_in_circles =
            slices().matching("org.mellowclass.app.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule features_follow_the_way_of_the_work = layeredArchitecture().consideringOnlyDependenciesInLayers()
            .layer("ground").definedBy("..app.store..", "..app.jobs..", "..app.live..", "..app.people..", "..app.web..", "..app.outbox..", "..app.turns..")
            .layer("takes").definedBy("..app.takes..", "..app.sounds..", "..app.recording..", "..app.incoming..")
            .layer("bench").definedBy("..app.bench..")
            .layer("shelf").definedBy("..app.shelf..")
            .layer("brief").definedBy("..app.brief..")
            .layer("roster").definedBy("..app.roster..")
            .layer("room").definedBy("..app.room..")
            .layer("lineup").definedBy("..app.lineup..")
            .layer("cleanup").definedBy("..app.cleanup..")
            .layer("soundcheck").definedBy("..app.soundcheck..")
            .layer("erasing").definedBy("..app.erasing..")
            .layer("review").definedBy("..app.review..")
            .layer("feed").definedBy("..app.feed..")
            .layer("board").definedBy("..app.board..")
            .layer("practice").definedBy("..app.practice..")
            .layer("news").definedBy("..app.news..")
            .layer("demo").definedBy("..app.demo..")
            .whereLayer("takes").mayOnlyBeAccessedByLayers("bench", "shelf", "brief", "room", "lineup", "cleanup", "soundcheck", "review", "erasing", "board", "practice", "demo")
            .whereLayer("bench").mayOnlyBeAccessedByLayers("shelf", "room", "lineup", "cleanup", "soundcheck", "review", "erasing", "practice", "demo")
            .whereLayer("shelf").mayOnlyBeAccessedByLayers("brief", "roster", "feed", "demo")
            .whereLayer("brief").mayOnlyBeAccessedByLayers("roster", "room", "cleanup", "soundcheck", "review", "feed", "board", "practice", "demo")
            .whereLayer("roster").mayOnlyBeAccessedByLayers("demo")
            .whereLayer("room").mayNotBeAccessedByAnyLayer()
            .whereLayer("cleanup").mayNotBeAccessedByAnyLayer()
            .whereLayer("soundcheck").mayOnlyBeAccessedByLayers("review", "board")
            .whereLayer("erasing").mayOnlyBeAccessedByLayers("room", "board")
            .whereLayer("review").mayOnlyBeAccessedByLayers("feed", "erasing", "board", "demo")
            .whereLayer("feed").mayOnlyBeAccessedByLayers("erasing", "board", "demo")
            .whereLayer("board").mayNotBeAccessedByAnyLayer()
            .whereLayer("practice").mayNotBeAccessedByAnyLayer()
            .whereLayer("news").mayNotBeAccessedByAnyLayer()
            .whereLayer("demo").mayNotBeAccessedByAnyLayer();

    @ArchTest
    static final ArchRule controllers_ask_services_and_never_the_database = noClasses().that().areAnnotatedWith(Controller.class)
            .should().dependOnClassesThat().areAnnotatedWith(Mapper.class);

    @ArchTest
    static final ArchRule sql_stays_in_mappers_of_its_own_feature = classes().that().areAnnotatedWith(Mapper.class)
            .should().notBePublic();

    @ArchTest
    static final ArchRule child_processes_belong_to_media = noClasses().should().dependOnClassesThat()
            .belongToAnyOf(ProcessBuilder.class, Runtime.class);

    @ArchTest
    static final ArchRule the_application_is_reached_through_spring_only = noClasses().that().resideOutsideOfPackage("..demo..")
            .should().dependOnClassesThat().resideInAPackage("..demo..");
}
