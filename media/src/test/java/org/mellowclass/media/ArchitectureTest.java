package org.mellowclass.media;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

@AnalyzeClasses(packages = "org.mellowclass.media", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

    @ArchTest
    static final ArchRule media_knows_the_core_and_the_jdk = classes().should().onlyDependOnClassesThat()
            .resideInAnyPackage("org.mellowclass.core..", "org.mellowclass.media..", "java..");
}
