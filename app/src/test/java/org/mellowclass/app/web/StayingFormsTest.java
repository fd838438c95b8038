package org.mellowclass.app.web;

import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.is;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.content;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.header;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.jsonPath;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.redirectedUrl;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.MediaType;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.springframework.test.web.servlet.request.MockMvcRequestBuilders;

@AppTest
class StayingFormsTest {

    @Autowired
    private MockMvc mvc;
    @Autowired
    private Schools schools;
    private Schools.School school;
    private String student;

    @BeforeEach
    void aStudentsPage() {
        school = schools.build();
        student = "/classes/" + school.classId() + "/students/" + school.student().id();
    }

    private MockHttpServletRequestBuilder change(String onAirName) {
        return post(student).with(As.person(school.teacher())).with(csrf()).accept(MediaType.APPLICATION_JSON)
                .param("name", "Tess Quill").param("onAirName", onAirName);
    }

    @Test
    void a_form_that_stays_is_told_its_field_and_the_reason() throws Exception {
        mvc.perform(change("Tess Quill").header("X-Stays", "true")).andExpect(status().isUnprocessableEntity())
                .andExpect(jsonPath("$.field", is("onAirName"))).andExpect(jsonPath("$.detail", containsString("surname")));
    }

    @Test
    void a_form_that_stays_gets_the_address_to_go_to_and_others_are_led_there() throws Exception {
        String crews = "/classes/" + school.classId() + "/crews";
        mvc.perform(change("Tess").header("X-Stays", "true")).andExpect(status().isNoContent()).andExpect(header().string("Go-To", crews));
        mvc.perform(change("Tess")).andExpect(redirectedUrl(crews));
    }

    @Test
    void a_list_that_is_too_large_or_no_list_is_refused_where_it_was_chosen() throws Exception {
        MockMultipartFile picture = new MockMultipartFile("file", "list.csv", "text/csv", new byte[] {(byte) 0x89, 'P', 'N', 'G', 0, 0, 1});
        MockMultipartFile large = new MockMultipartFile("file", "list.csv", "text/csv", new byte[600_000]);
        for (MockMultipartFile file : new MockMultipartFile[] {picture, large}) {
            mvc.perform(MockMvcRequestBuilders.multipart("/classes/" + school.classId() + "/roster").file(file).param("list", "Noor, Kingfisher").with(As.person(school.teacher())).with(csrf()))
                    .andExpect(status().isOk()).andExpect(content().string(containsString("Nothing was written."))).andExpect(content().string(containsString("Noor, Kingfisher")));
        }
    }
}
