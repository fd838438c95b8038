package org.mellowclass.app.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.put;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.util.stream.Collectors;
import java.util.stream.IntStream;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.MediaType;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.web.servlet.MockMvc;

/** Numbers, lists and bodies that no page sends. */
@AppTest
class OutsideNumbersTest {

    @Autowired
    private MockMvc mvc;
    @Autowired
    private Schools schools;
    @Autowired
    private Recording recording;
    @Autowired
    private JdbcClient database;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    private int edit(String json) throws Exception {
        return mvc.perform(post("/episodes/" + school.episodeId() + "/edits").with(As.person(school.student())).with(csrf()).contentType(MediaType.APPLICATION_JSON).content(json))
                .andReturn().getResponse().getStatus();
    }

    @ParameterizedTest
    @ValueSource(longs = {Long.MAX_VALUE - 100, Long.MAX_VALUE, OutsideNumbers.MOST + 1, OutsideNumbers.MOST, 3L * 3600 * 48_000, -1, Long.MIN_VALUE})
    void a_chunk_that_begins_where_no_take_reaches_is_refused(long firstFrame) throws Exception {
        Recording.Begun begun = recording.begin(school.student(), school.episodeId(), Recording.Start.on("Noor", 48_000));
        String address = "/uploads/" + begun.uploadKey() + "/chunks/0?firstFrame=" + firstFrame + "&crc32=1104745215";
        mvc.perform(put(address).with(As.person(school.student())).with(csrf()).contentType(MediaType.APPLICATION_OCTET_STREAM).content(new byte[2])).andExpect(status().is4xxClientError());
        assertThat(database.sql("SELECT count(*) FROM take_chunk WHERE take_id = ?").param(begun.takeId()).query(Integer.class).single()).isZero();
    }

    @Test
    void numbers_in_addresses_and_in_json_are_bounded_before_anybody_counts_with_them() throws Exception {
        mvc.perform(get("/episodes/" + Long.MAX_VALUE + "/bench").with(As.person(school.student()))).andExpect(status().isNotFound());
        String edit = "{\"base\":%s,\"clientId\":\"aaaaaaaa\",\"edit\":{\"type\":\"remove\",\"startFrame\":0,\"endFrame\":%s,\"trackIds\":[1]}}";
        assertThat(edit(edit.formatted(1, Long.MAX_VALUE))).isEqualTo(400);
        assertThat(edit(edit.formatted("9007199254740992", 10))).isEqualTo(400);
        assertThat(edit(edit.formatted("1e30", 10))).isEqualTo(400);
    }

    @Test
    void what_is_longer_or_deeper_or_has_more_parts_than_any_page_sends_is_not_read() throws Exception {
        String ids = IntStream.range(0, 10_000_000).mapToObj(i -> "1").collect(Collectors.joining(","));
        assertThat(edit("{\"base\":1,\"edit\":{\"type\":\"split\",\"frame\":0,\"trackIds\":[" + ids + "]}}")).isEqualTo(413);
        assertThat(edit("{\"base\":1,\"edit\":{\"type\":\"split\",\"frame\":0,\"trackIds\":[" + ids.substring(0, 100_001) + "]}}")).isEqualTo(413);
        assertThat(edit("{\"more\":" + "[".repeat(1000))).isEqualTo(413);
        String refused = mvc.perform(post("/episodes/" + school.episodeId() + "/edits").with(As.person(school.student())).with(csrf()).contentType(MediaType.APPLICATION_JSON)
                .content("\"" + "x".repeat(300_000) + "\"")).andReturn().getResponse().getContentAsString();
        assertThat(refused).contains("That is more than can be sent at once. Nothing was changed.");
    }
}
