package org.mellowclass.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;

import java.util.List;
import java.util.Random;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

@AnalyzeClasses(packages = "org.mellowclass.core", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

    /** From the ground floor up: a package may use those before it, never those behind it. */
    private static final List<String> FLOORS =
            List.of("sound", "dsp", "measure", "cleanup", "treatment", "timeline", "timeline.edit", "timeline.history", "talk", "render", "soundcheck", "review", "publish");

    @ArchTest
    static final ArchRule the_core_is_plain_java = classes().should().onlyDependOnClassesThat()
            .resideInAnyPackage("org.mellowclass.core..", "java.lang..", "java.io..", "java.nio..", "java.util..", "java.text..", "org.jtransforms..");

    @ArchTest
    static final ArchRule the_core_has_no_clock_and_no_random_number = noClasses().should().dependOnClassesThat()
            .belongToAnyOf(Random.class, java.util.concurrent.ThreadLocalRandom.class, java.util.UUID.class,
                    java.util.Date.class, java.util.Timer.class, ProcessBuilder.class);

    @ArchTest
    static void imports_point_to_lower_floors_only(JavaClasses core) {
        for (int floor = 0; floor < FLOORS.size(); floor++) {
            for (String above : FLOORS.subList(floor + 1, FLOORS.size())) {
                noClasses().that().resideInAPackage("org.mellowclass.core." + FLOORS.get(floor))
                        .should().dependOnClassesThat().resideInAPackage("org.mellowclass.core." + above).check(core);
            }
        }
    }

    @ArchTest
    static final ArchRule every_class_stands_on_a_floor = classes().should().resideInAnyPackage(
            FLOORS.stream().map(floor -> "org.mellowclass.core." + floor).toArray(String[]::new));
}
