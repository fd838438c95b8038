package org.mellowclass.app.cleanup;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.HeardSounds;
import org.mellowclass.app.sounds.SoundNotMade;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.app.web.Words;
import org.mellowclass.core.cleanup.CleanupRefused;
import org.mellowclass.core.cleanup.Forecast;
import org.mellowclass.core.cleanup.Heard;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.cleanup.RecipeText;
import org.mellowclass.core.cleanup.StarterRecipe;
import org.mellowclass.core.cleanup.StepKind;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.treatment.CleanUp;
import org.springframework.core.io.ByteArrayResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The page on which a take is cleaned: a recipe is made of steps, heard against the take, and kept. */
@Controller
class CleanupController {

    private static final MediaType WAV = MediaType.parseMediaType("audio/wav");

    private final TakeCleaning cleaning;
    private final ClassRecipes classRecipes;
    private final Briefs briefs;
    private final Access access;
    private final Words words;

    CleanupController(TakeCleaning cleaning, ClassRecipes classRecipes, Briefs briefs, Access access, Words words) {
        this.cleaning = cleaning;
        this.classRecipes = classRecipes;
        this.briefs = briefs;
        this.access = access;
        this.words = words;
    }

    /**
     * A recipe as it is offered.
     *
     * @param code    of a starter recipe's name; null for one of the class
     * @param ofClass null for a starter recipe
     * @param steps   as {@link RecipeText} writes them
     * @param chosen  whether the page shows what it does
     * @param kept    whether the take is cleaned by it
     * @param ofBrief whether the brief asks to start from it
     */
    public record Offered(String code, ClassRecipe ofClass, String steps, boolean chosen, boolean kept, boolean ofBrief) {
    }

    /** How loud each of both is played, from 0 to 1, so that they are equally loud. */
    public record Volumes(double before, double after) {

        static Volumes of(HeardSounds.Compared compared) {
            double before = compared.before().loudnessLufs().orElse(0);
            double after = compared.after().loudnessLufs().orElse(0);
            double least = Math.min(before, after);
            return new Volumes(Math.pow(10, (least - before) / 20), Math.pow(10, (least - after) / 20));
        }
    }

    /**
     * What a page asks for.
     *
     * @param steps as {@link RecipeText} writes them; null for what suits
     * @param roomFrom where the room is learned, as people write times; nothing to find it
     */
    record Asked(String steps, String roomFrom, String roomTo) {

        CleanUp cleanUp(Words words) {
            return new CleanUp(RecipeText.recipe(steps == null ? "" : steps), room(words));
        }

        Span room(Words words) {
            if (roomFrom == null || roomFrom.isBlank() || roomTo == null || roomTo.isBlank()) {
                return null;
            }
            long from = words.frames(roomFrom).orElseThrow(() -> Refusal.unfit("cleanup.ROOM_TOO_SHORT"));
            long to = words.frames(roomTo).orElseThrow(() -> Refusal.unfit("cleanup.ROOM_TOO_SHORT"));
            if (to <= from) {
                throw Refusal.unfit("cleanup.ROOM_TOO_SHORT");
            }
            return new Span(from, to);
        }
    }

    /** What was asked for, or the words for why it cannot be. */
    private CleanUp asked(Asked asked) {
        try {
            return asked.cleanUp(words);
        } catch (CleanupRefused refused) {
            throw Refusal.unfit("cleanup." + refused.reason());
        }
    }

    @GetMapping("/takes/{takeId}/cleanup")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @ModelAttribute Asked asked, Model model) throws IOException {
        Take take = cleaning.take(viewer, takeId);
        Episode episode = access.episode(viewer, take.episodeId());
        Optional<CleanUp> now = cleaning.now(take);
        String ofBrief = briefs.ofEpisode(take.episodeId()).recipe().name();
        List<ClassRecipe> ofClass = classRecipes.ofClass(episode.classId());
        Optional<StarterRecipe> starter = Arrays.stream(StarterRecipe.values()).filter(each -> each.name().equals(ofBrief)).findFirst();
        String steps = asked.steps != null ? asked.steps : RecipeText.of(now.map(CleanUp::recipe).orElse(starter.orElse(StarterRecipe.NOISY_CLASSROOM).recipe()));
        Span room = asked.steps == null && now.isPresent() ? now.get().room() : null;
        model.addAttribute("episode", episode);
        model.addAttribute("own", !viewer.isTeacher());
        model.addAttribute("take", take);
        model.addAttribute("takes", cleaning.others(viewer, take));
        model.addAttribute("offered", Stream.concat(ofClass.stream().map(each -> offered(null, each, each.text(), steps, now, false)),
                Arrays.stream(StarterRecipe.values()).map(each -> offered(each.name(), null, RecipeText.of(each.recipe()), steps, now, starter.isPresent() && starter.get() == each))).toList());
        model.addAttribute("onPage", cleaning.isOnPage(take));
        model.addAttribute("cleaned", now.isPresent());
        model.addAttribute("steps", steps);
        model.addAttribute("roomFrom", room == null ? asked.roomFrom : words.fineClock(room.startFrame()));
        model.addAttribute("roomTo", room == null ? asked.roomTo : words.fineClock(room.endFrame()));
        model.addAttribute("kinds", StepKind.values());
        work(take, steps, room == null ? asked : new Asked(steps, words.fineClock(room.startFrame()), words.fineClock(room.endFrame())), now, model);
        return "cleanup/page";
    }

    private static Offered offered(String code, ClassRecipe ofClass, String text, String steps, Optional<CleanUp> now, boolean ofBrief) {
        return new Offered(code, ofClass, text, text.equals(steps), now.isPresent() && RecipeText.of(now.get().recipe()).equals(text), ofBrief);
    }

    /** The steps as they are set, what they will do, or why they cannot be done so. */
    private void work(Take take, String steps, Asked asked, Optional<CleanUp> now, Model model) throws IOException {
        List<Recipe.Step> written = new ArrayList<>();
        model.addAttribute("written", written);
        try {
            written.addAll(RecipeText.steps(steps));
            CleanUp cleanUp = new CleanUp(new Recipe(written), asked.room(words));
            cleaning.checkRoom(take, cleanUp.room());
            Optional<Heard> heard = cleaning.heard(take);
            model.addAttribute("forecast", heard.map(known -> Forecast.of(cleanUp.recipe(), known)).orElse(null));
            long from = heard.map(CleanupController::shortlyBeforeSpeech).orElse(0L);
            model.addAttribute("from", from);
            model.addAttribute("kept", now.isPresent() && now.get().equals(cleanUp));
            model.addAttribute("empty", cleanUp.changesNothing());
            Optional<HeardSounds.Compared> made = cleaning.comparedIfMade(take, cleanUp);
            model.addAttribute("seconds", Frames.toSeconds(made.isPresent() ? take.frames() : Math.min(TrialHearing.WINDOW_FRAMES, take.frames() - from)));
            figures(take, made, 0, false, model);
        } catch (CleanupRefused refused) {
            model.addAttribute("problem", "refusal.cleanup." + refused.reason());
        } catch (Refusal refused) {
            model.addAttribute("problem", "refusal." + refused.code());
        } catch (SoundNotMade notYet) {
            model.addAttribute("problem", "refusal.cleanup.NOT_MADE_YET");
        }
    }

    private static long shortlyBeforeSpeech(Heard heard) {
        return heard.pauses().stream().filter(pause -> pause.startFrame() == 0).mapToLong(pause -> Math.max(0, pause.endFrame() - Frames.RATE)).findFirst().orElse(0);
    }

    private void figures(Take take, Optional<HeardSounds.Compared> compared, int percent, boolean failed, Model model) {
        model.addAttribute("compared", compared.orElse(null));
        model.addAttribute("volumes", compared.map(Volumes::of).orElse(null));
        model.addAttribute("percent", percent);
        model.addAttribute("failed", failed);
    }

    /**
     * What is measured of the whole take; asked for again until it is made.
     *
     * @param evenSo whether to try again what could not be made
     */
    @GetMapping("/takes/{takeId}/cleanup/figures")
    String figures(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @ModelAttribute Asked asked,
                   @RequestParam(defaultValue = "false") boolean evenSo, Model model) throws IOException {
        Take take = cleaning.take(viewer, takeId);
        CleanUp cleanUp = asked(asked);
        cleaning.checkRoom(take, cleanUp.room());
        boolean failed = !evenSo && cleaning.failed(take, cleanUp);
        Optional<HeardSounds.Compared> compared = failed ? Optional.empty() : cleaning.compared(take, cleanUp);
        model.addAttribute("take", take);
        model.addAttribute("steps", asked.steps);
        model.addAttribute("roomFrom", asked.roomFrom);
        model.addAttribute("roomTo", asked.roomTo);
        figures(take, compared, failed ? 0 : cleaning.percent(take, cleanUp).orElse(0), failed, model);
        return "cleanup/trial :: figures";
    }

    @GetMapping("/takes/{takeId}/cleanup/before")
    ResponseEntity<Resource> before(@AuthenticationPrincipal Person viewer, @PathVariable long takeId) throws IOException {
        Take take = cleaning.take(viewer, takeId);
        return sound(() -> cleaning.before(take));
    }

    @GetMapping("/takes/{takeId}/cleanup/after")
    ResponseEntity<Resource> after(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @ModelAttribute Asked asked) throws IOException {
        Take take = cleaning.take(viewer, takeId);
        return sound(() -> cleaning.after(take, asked(asked)));
    }

    @GetMapping("/takes/{takeId}/cleanup/removed")
    ResponseEntity<Resource> removed(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @ModelAttribute Asked asked) throws IOException {
        Take take = cleaning.take(viewer, takeId);
        return sound(() -> cleaning.removed(take, asked(asked)));
    }

    /** Some seconds, at once. */
    @GetMapping("/takes/{takeId}/cleanup/window/{part}")
    ResponseEntity<Resource> window(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @PathVariable TrialHearing.Part part, @ModelAttribute Asked asked,
                                    @RequestParam(defaultValue = "0") long from) throws IOException {
        Take take = cleaning.take(viewer, takeId);
        CleanUp cleanUp = asked(asked);
        return sound(() -> new ByteArrayResource(cleaning.window(take, cleanUp, from, part)));
    }

    @FunctionalInterface
    private interface Sounding {
        Resource open() throws IOException;
    }

    private static ResponseEntity<Resource> sound(Sounding sounding) throws IOException {
        try {
            return ResponseEntity.ok().contentType(WAV).cacheControl(CacheControl.noStore()).body(sounding.open());
        } catch (SoundNotMade notYet) {
            return ResponseEntity.accepted().cacheControl(CacheControl.noStore()).build();
        }
    }

    /** No steps take it back to how it was. */
    @PostMapping("/takes/{takeId}/cleanup")
    String keep(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @ModelAttribute Asked asked, @RequestParam(defaultValue = "TAKE") TakeCleaning.Scope scope) throws IOException {
        cleaning.keep(viewer, takeId, asked(asked), scope);
        return "redirect:/takes/" + takeId + "/cleanup";
    }

    /** Keeps the steps for the class. */
    @PostMapping("/takes/{takeId}/cleanup/class-recipes")
    String keepForClass(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @ModelAttribute Asked asked, @RequestParam String name, @RequestParam String advice) {
        Take take = cleaning.take(viewer, takeId);
        Recipe recipe = asked(asked).recipe();
        classRecipes.keep(viewer, take.episodeId(), name, advice, recipe);
        return "redirect:/takes/" + takeId + "/cleanup?steps=" + RecipeText.of(recipe);
    }

    @PostMapping("/takes/{takeId}/cleanup/class-recipes/{recipeId}/away")
    String takeAway(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @PathVariable long recipeId) {
        cleaning.take(viewer, takeId);
        classRecipes.takeAway(viewer, recipeId);
        return "redirect:/takes/" + takeId + "/cleanup";
    }
}
