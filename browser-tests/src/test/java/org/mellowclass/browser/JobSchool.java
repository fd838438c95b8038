package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;

import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.media.SoundRefused;

import com.google.gson.JsonArray;
import com.google.gson.JsonObject;
import com.google.gson.JsonParser;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.WaitForSelectorState;

/** A class of its own with a crew for each job, and what these do on the bench: bringing in, selecting, taking a file along. */
abstract class JobSchool extends BrowserTest {

    static final String TEACHER_PASSWORD = "reeds in the wind";
    private static final List<String> CHILDREN = List.of("Ada Reed", "Ben Sedge", "Cleo Rush", "Dov Marsh", "Elin Fen", "Finn Brook", "Gia Weir", "Hal Lock", "Ida Pool", "Jon Sluice");

    /** The class code and the passphrase of each child; nothing before the class is made. */
    private static final Map<String, List<String>> CARDS = new HashMap<>();
    private static String classPath;

    @TempDir
    Path folder;

    /** In the school that all journeys share, with a teacher who sees this class alone. */
    @BeforeEach
    void makeTheClass() {
        if (!CARDS.isEmpty()) {
            return;
        }
        Page teacher = page();
        signInAsTeacher(teacher);
        teacher.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Crews")).first().click();
        teacher.waitForURL("**/crews");
        String demoClass = teacher.url();
        teacher.getByLabel("Another class").fill(getClass().getSimpleName());
        teacher.getByText("Make the class").click();
        teacher.waitForURL(url -> !url.equals(demoClass));
        classPath = teacher.url().replaceAll(".*(/classes/\\d+)/.*", "$1");
        // the number says that they are not the children of another journey
        StringBuilder list = new StringBuilder("Number;Name;Crew\n");
        CHILDREN.forEach(child -> list.append(getClass().getSimpleName()).append(CHILDREN.indexOf(child)).append(';').append(child).append(';').append("Crew ").append(child.charAt(0)).append('\n'));
        teacher.getByLabel("Paste your list here, one student a line").fill(list.toString());
        teacher.getByText("Look at it first").click();
        teacher.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Write them")).click();
        teacher.waitForURL("**/crews");
        Page colleague = handOver(teacher);
        colleague.navigate(at(classPath + "/cards"));
        colleague.locator(".sign-in-card").first().waitFor();
        for (Locator card : colleague.locator(".sign-in-card").all()) {
            List<String> lines = card.locator("dd").allInnerTexts();
            CARDS.put(CHILDREN.stream().filter(card.innerText()::contains).findFirst().orElseThrow(), lines.subList(1, 3));
        }
    }

    private String teacherEmail() {
        return getClass().getSimpleName().toLowerCase(Locale.ROOT) + "@saltmarsh.example";
    }

    /** To a colleague, who comes in and teaches it alone: in other journeys the first teacher still has one class. */
    private Page handOver(Page teacher) {
        teacher.getByLabel("A colleague’s e-mail").fill(teacherEmail());
        teacher.getByText("Invite", new Page.GetByTextOptions().setExact(true)).click();
        teacher.waitForURL("**/outbox");
        Page colleague = page();
        colleague.navigate(teacher.locator("main a").first().getAttribute("href"));
        colleague.getByLabel("What the class calls you").fill("Mr Rush");
        colleague.getByLabel("Password, twelve letters or more").fill(TEACHER_PASSWORD);
        colleague.getByText("Come in").click();
        colleague.waitForURL("**/classes/*");
        colleague.navigate(at(classPath + "/crews"));
        colleague.getByText("Take off", new Page.GetByTextOptions().setExact(true)).click();
        colleague.getByText("Take off", new Page.GetByTextOptions().setExact(true)).waitFor(new Locator.WaitForOptions().setState(WaitForSelectorState.DETACHED));
        return colleague;
    }

    @AfterAll
    static void leaveTheClass() {
        CARDS.clear();
    }

    /** The class's own teacher, signed in. */
    Page teacher(Page teacher) {
        signInAsTeacher(teacher, teacherEmail(), TEACHER_PASSWORD);
        return teacher;
    }

    /** A page of the class. */
    static String ofClass(String path) {
        return at(classPath + path);
    }

    static String at(String path) {
        return address(path);
    }

    Page crewOf(String child) {
        Page page = page();
        List<String> card = CARDS.get(child);
        page.navigate(address("/sign-in"));
        page.getByLabel("Class code").fill(card.get(0));
        page.getByLabel("Your name").fill(child);
        page.getByLabel("Passphrase").fill(card.get(1));
        page.locator("#panel-student button[type=submit]").click();
        page.waitForURL("**/bench");
        return page;
    }

    /** Brings sounds in, each on a track of its own that is called as it is, or to the take list only; then the bench is open. */
    void bringIn(Page page, String placing, Map<String, Signal> sounds) throws IOException {
        String episode = episodeOf(page);
        page.navigate(address("/episodes/" + episode + "/record"));
        SortedMap<String, Signal> inOrder = new TreeMap<>(sounds);
        if (placing.equals("START")) {
            // one after the other: of some at once, each gets its track when it is ready
            for (Map.Entry<String, Signal> sound : inOrder.entrySet()) {
                bringInAtOnce(page, placing, Map.of(sound.getKey(), sound.getValue()));
            }
        } else {
            bringInAtOnce(page, placing, inOrder);
        }
        page.waitForCondition(() -> isMeasured(page));
        page.navigate(address("/episodes/" + episode + "/bench"));
        page.locator("#drawer-tabs").waitFor();
    }

    private void bringInAtOnce(Page page, String placing, Map<String, Signal> sounds) throws IOException {
        List<Path> files = new ArrayList<>();
        for (Map.Entry<String, Signal> sound : sounds.entrySet()) {
            Path file = folder.resolve(sound.getKey() + ".wav");
            try (WavWriter writer = WavWriter.create(file, sound.getValue().channels(), 48_000, SampleFormat.FLOAT_32)) {
                SampleSink.drain(sound.getValue().stream(), writer);
            }
            files.add(file);
        }
        if (!page.locator("#file").isVisible()) {
            page.locator("summary:has-text('ring')").first().click();
        }
        page.locator("#file").setInputFiles(files.toArray(Path[]::new));
        page.getByLabel("They go").selectOption(placing);
        page.locator("#bring-track").fill("Music");
        page.locator("#bring-form button[type=submit]").click();
        for (String name : sounds.keySet()) {
            page.getByLabel("Play " + name, new Page.GetByLabelOptions().setExact(true)).first().waitFor();
        }
    }

    /** Whether it is known of every take who speaks when. */
    private static boolean isMeasured(Page page) {
        return timeline(page).getAsJsonObject("takes").asMap().values().stream().noneMatch(take -> take.getAsJsonObject().get("clipped").isJsonNull());
    }

    /** With what somebody works. */
    enum Hand {
        MOUSE {
            @Override
            void press(Page page, Locator control) {
                settled(page, control);
                control.click();
            }

            @Override
            void type(Page page, Locator field, String words) {
                field.fill(words);
                page.keyboard().press("Enter");
            }
        },
        /** Nothing is clicked, and the focus goes by Tab alone. */
        KEYS {
            @Override
            void press(Page page, Locator control) {
                reach(page, control);
                page.keyboard().press("Enter");
            }

            @Override
            void type(Page page, Locator field, String words) {
                reach(page, field);
                page.keyboard().press("Control+a");
                page.keyboard().type(words);
                page.keyboard().press("Enter");
            }
        };

        abstract void press(Page page, Locator control);

        abstract void type(Page page, Locator field, String words);

        /** Selects on all tied tracks by typing; what is typed is held to hundredths. */
        void select(Page page, double start, double end) {
            // keys do nothing before the page is drawn
            waitForRows(page);
            if (!page.locator("#card").isVisible()) {
                toPage(page);
                page.keyboard().press("Control+a");
            }
            type(page, page.locator("#card-start"), "0:00");
            type(page, page.locator("#card-end"), time(end));
            type(page, page.locator("#card-start"), time(start));
        }

        /** To the page of rows itself. */
        void toPage(Page page) {
            if (this == KEYS) {
                reach(page, page.locator("#page"));
            } else {
                page.locator("#page").focus();
            }
        }

        void tab(Page page, String name) {
            press(page, page.locator("[data-tab=" + name + "]"));
        }

        /** Presses a button of the selection's card. */
        void act(Page page, String button, String said) {
            if (!page.locator(button).isVisible()) {
                press(page, page.locator("#card summary"));
            }
            press(page, page.locator(button));
            page.getByText(said).waitFor();
        }

        /** Puts the ribbon there by keys. */
        void ribbonTo(Page page, double seconds) {
            toPage(page);
            page.keyboard().press("Home");
            for (int i = 0; i < Math.round(seconds * 10); i++) {
                page.keyboard().press("Shift+ArrowRight");
            }
        }
    }

    static void select(Page page, double start, double end) {
        Hand.MOUSE.select(page, start, end);
    }

    static String time(double seconds) {
        return "%d:%05.2f".formatted((int) seconds / 60, seconds % 60);
    }

    /** Only these tracks are ticked. */
    static void tracks(Page page, String... names) {
        for (Locator label : page.locator("#card-tracks label").all()) {
            boolean wanted = List.of(names).contains(label.innerText().strip());
            if (label.locator("input").isChecked() != wanted) {
                label.locator("input").setChecked(wanted);
            }
        }
    }

    static void press(Page page, String button, String said) {
        Hand.MOUSE.act(page, button, said);
    }

    static void ribbonTo(Page page, double seconds) {
        Hand.MOUSE.ribbonTo(page, seconds);
    }

    /** The file that the bench gives, as it is heard. */
    float[] taken(Page page) throws IOException, SoundRefused {
        return taken(page, Hand.MOUSE);
    }

    float[] taken(Page page, Hand hand) throws IOException, SoundRefused {
        hand.press(page, page.locator("#open-export"));
        Locator wav = page.locator("#export-formats a", new Page.LocatorOptions().setHasText("WAV"));
        Download download = page.waitForDownload(() -> hand.press(page, wav));
        hand.press(page, page.locator("#export form[method=dialog] button"));
        return Voices.mono(Files.readAllBytes(download.path()), folder);
    }

    /** Lines two takes up by what both have heard, and lays them in step. */
    void lineUp(Page page, Hand hand, String stays, String other) {
        String episode = episodeOf(page);
        page.navigate(address("/episodes/" + episode + "/line-up"));
        Locator first = page.getByLabel(stays + " stays", new Page.GetByLabelOptions().setExact(true));
        Locator second = page.getByLabel("Line " + other + " up", new Page.GetByLabelOptions().setExact(true));
        if (hand == Hand.KEYS) {
            reach(page, page.locator("input[name=first]").first());
            for (int i = 0; i < 3 && !first.isChecked(); i++) {
                page.keyboard().press(i == 0 ? "Space" : "ArrowDown");
            }
            reach(page, second);
            page.keyboard().press("Space");
        } else {
            first.check();
            second.check();
        }
        hand.press(page, page.getByText("Measure", new Page.GetByTextOptions().setExact(true)));
        hand.press(page, page.getByText("Lay them in step", new Page.GetByTextOptions().setExact(true)));
        page.getByText("They lie in step.").waitFor();
        page.navigate(address("/episodes/" + episode + "/bench"));
        page.locator("#drawer-tabs").waitFor();
    }

    static List<String> words(List<Tones.Heard> heard) {
        return heard.stream().map(Tones.Heard::toString).toList();
    }

    static JsonObject timeline(Page page) {
        return JsonParser.parseString(page.context().request().get(address("/episodes/" + episodeOf(page) + "/timeline")).text()).getAsJsonObject();
    }

    static JsonArray clips(Page page, int track) {
        return timeline(page).getAsJsonArray("tracks").get(track).getAsJsonObject().getAsJsonArray("clips");
    }
}
