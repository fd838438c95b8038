package org.mellowclass.app.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;

import org.junit.jupiter.api.Test;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class VersionedLinksTest {

    private static final Pattern LINK = Pattern.compile(" (?:href|src|action|data-icons)=\"(/[^\"]*)\"");
    private static final Pattern SHIPPED = Pattern.compile("/(?:css|js|vendor|img|sound)/.*");

    @Autowired
    private MockMvc mvc;
    @Autowired
    private Schools schools;

    @Test
    void what_ships_has_the_build_in_its_address_and_nothing_else_has() throws Exception {
        Schools.School school = schools.build();
        schools.readyTake(school, Schools.speech(), "Noor");
        String page = mvc.perform(get("/hand-ins/" + schools.readyHandIn(school).id()).with(As.person(school.teacher()))).andReturn().getResponse().getContentAsString();
        List<String> links = LINK.matcher(page).results().map((MatchResult link) -> link.group(1)).toList();
        List<String> versioned = links.stream().filter(link -> link.startsWith("/build-")).toList();
        assertThat(versioned).anyMatch(link -> link.endsWith("/js/review/main.js")).anyMatch(link -> link.endsWith("/css/mellow.css"))
                .allMatch(link -> SHIPPED.matcher(link.substring(link.indexOf('/', 1))).matches());
        assertThat(links).filteredOn(link -> !link.startsWith("/build-")).contains("/classes/" + school.classId()).noneMatch(link -> SHIPPED.matcher(link).matches());
    }
}
