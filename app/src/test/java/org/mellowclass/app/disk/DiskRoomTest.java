package org.mellowclass.app.disk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.multipart;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.jsonPath;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.redirectedUrlPattern;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.store.NamedSounds;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Disk;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.Refusal;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.util.unit.DataSize;

@AppTest
class DiskRoomTest {

    private static final long MB = DataSize.ofMegabytes(1).toBytes();

    @TempDir
    Path folder;
    @Autowired
    private Schools schools;
    @Autowired
    private Disk disk;
    @Autowired
    private MockMvc mvc;
    @Autowired
    private Recording recording;
    @Autowired
    private SoundStore store;
    @Autowired
    private List<NamedSounds> named;
    @Autowired
    private MellowProperties properties;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    /** With 512 MB kept for recordings, as by default. */
    @Test
    void files_stop_while_there_is_room_for_recordings_and_nothing_of_them_is_kept() throws Exception {
        disk.with(600 * MB, () -> mvc.perform(post("/episodes/" + school.episodeId() + "/files").with(As.person(school.student())).with(csrf())
                .header("Upload-Length", 200 * MB).header("Upload-Metadata", "trackName Tm9vcg==")).andExpect(status().isInsufficientStorage()).andExpect(jsonPath("code").value("disk.FILE")));
        disk.with(600 * MB, () -> mvc.perform(post("/episodes/" + school.episodeId() + "/files").with(As.person(school.student())).with(csrf())
                .header("Upload-Length", 50 * MB).header("Upload-Metadata", "trackName Tm9vcg==")).andExpect(status().isCreated()));
        disk.with(100 * MB, () -> assertThat(recording.begin(school.student(), school.episodeId(), Recording.Start.on("Noor", 48_000)).takeId()).isPositive());
        long begun = recording.begin(school.student(), school.episodeId(), Recording.Start.on("Noor", 48_000)).takeId();
        disk.with(10 * MB, () -> assertThat(recording.begin(school.student(), school.episodeId(),
                new Recording.Start("Noor", 48_000, 0, null, null, Set.of(), Set.of(), null, null, begun)).takeId()).as("the rest of what was spoken").isPositive());
        disk.with(10 * MB, () -> assertThatThrownBy(() -> recording.begin(school.student(), school.episodeId(), Recording.Start.on("Noor", 48_000)))
                .isInstanceOf(Refusal.class).hasMessage("disk.RECORDING"));
    }

    @Test
    void a_form_with_files_is_read_only_from_somebody_who_is_signed_in_and_while_there_is_room() throws Exception {
        MockMultipartFile file = new MockMultipartFile("file", "a.wav", "audio/wav", Files.readAllBytes(Schools.write(Schools.speech(), folder.resolve("a.wav"))));
        Set<Path> before = arriving();
        mvc.perform(multipart("/episodes/" + school.episodeId() + "/takes").file(file).param("trackName", "Noor"))
                .andExpect(redirectedUrlPattern("**/sign-in"));
        disk.with(100 * MB, () -> mvc.perform(multipart("/episodes/" + school.episodeId() + "/takes").file(file).param("trackName", "Noor")
                .with(As.person(school.student())).with(csrf())).andExpect(status().isInsufficientStorage()).andExpect(jsonPath("code").value("disk.FILE")));
        assertThat(arriving()).isEqualTo(before);
    }

    private Set<Path> arriving() throws IOException {
        try (Stream<Path> files = Files.list(properties.folder().resolve("arriving"))) {
            return files.collect(Collectors.toSet());
        }
    }

    @Test
    void a_crew_and_a_class_keep_no_more_than_their_share() throws IOException {
        long take = schools.readyTake(school, Schools.speech(), "Noor");
        long bytes = store.size(schools.sound(school, take).soundKey());
        assertThat(bytes).as("five seconds of floats").isGreaterThan(5 * 48_000 * 2);
        DiskRoom narrow = room(DataSize.ofBytes(bytes * 10), DataSize.ofGigabytes(1));
        assertThatCode(() -> narrow.shareOfCrew(school.episodeId(), school.classId(), bytes)).doesNotThrowAnyException();
        assertThatThrownBy(() -> narrow.shareOfCrew(school.episodeId(), school.classId(), bytes * 9)).hasMessage("disk.CREW");
        assertThatThrownBy(() -> room(DataSize.ofGigabytes(1), DataSize.ofBytes(bytes)).shareOfCrew(school.episodeId(), school.classId(), 0)).hasMessage("disk.CLASS");
        assertThatCode(() -> room(DataSize.ofBytes(1), DataSize.ofBytes(1)).shareOfCrew(school.otherEpisodeId(), school.otherClassId(), 0))
                .as("others are not counted").doesNotThrowAnyException();
    }

    private DiskRoom room(DataSize crew, DataSize schoolClass) {
        MellowProperties.Room room = new MellowProperties.Room(DataSize.ofMegabytes(1), crew, schoolClass);
        return new DiskRoom(disk, store, named, new MellowProperties(URI.create("http://school.example"), folder, false, DataSize.ofGigabytes(1), room, null));
    }
}
