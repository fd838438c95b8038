package org.mellowclass.app.cleanup;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.HeardSounds;
import org.mellowclass.app.sounds.SoundNotMade;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.cleanup.StarterRecipe;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The page on which a take is cleaned: a recipe is tried, heard against the take, and kept. */
@Controller
class CleanupController {

    private static final MediaType WAV = MediaType.parseMediaType("audio/wav");
    private static final String NONE = "none";

    private final TakeCleaning cleaning;
    private final Briefs briefs;
    private final Access access;

    CleanupController(TakeCleaning cleaning, Briefs briefs, Access access) {
        this.cleaning = cleaning;
        this.briefs = briefs;
        this.access = access;
    }

    /**
     * A recipe as it is offered.
     *
     * @param chosen  whether the page shows what it does
     * @param kept    whether the take is cleaned by it
     * @param ofBrief whether the brief asks to start from it
     */
    public record Offered(StarterRecipe recipe, boolean chosen, boolean kept, boolean ofBrief) {
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

    @GetMapping("/takes/{takeId}/cleanup")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @RequestParam(required = false) String recipe, Model model) {
        Take take = cleaning.take(viewer, takeId);
        Optional<Recipe> now = cleaning.now(take);
        Optional<StarterRecipe> kept = Arrays.stream(StarterRecipe.values()).filter(each -> now.isPresent() && now.get().equals(each.recipe())).findFirst();
        String ofBrief = briefs.ofEpisode(take.episodeId()).recipe().name();
        Optional<StarterRecipe> starter = Arrays.stream(StarterRecipe.values()).filter(each -> each.name().equals(ofBrief)).findFirst();
        StarterRecipe chosen = recipe == null ? kept.or(() -> starter).orElse(StarterRecipe.NOISY_CLASSROOM) : named(recipe);
        List<Offered> offered = Arrays.stream(StarterRecipe.values())
                .map(each -> new Offered(each, each == chosen, kept.isPresent() && kept.get() == each, starter.isPresent() && starter.get() == each)).toList();
        model.addAttribute("episode", access.episode(viewer, take.episodeId()));
        model.addAttribute("own", !viewer.isTeacher());
        model.addAttribute("take", take);
        model.addAttribute("takes", cleaning.others(viewer, take));
        model.addAttribute("offered", offered);
        model.addAttribute("onPage", cleaning.isOnPage(take));
        model.addAttribute("cleaned", now.isPresent());
        model.addAttribute("kept", kept.isPresent() && kept.get() == chosen);
        trial(take, chosen, model);
        return "cleanup/page";
    }

    @GetMapping("/takes/{takeId}/cleanup/{recipe}/trial")
    String trial(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @PathVariable String recipe, Model model) {
        Take take = cleaning.take(viewer, takeId);
        model.addAttribute("take", take);
        trial(take, named(recipe), model);
        return "cleanup/trial :: trial";
    }

    private void trial(Take take, StarterRecipe recipe, Model model) {
        Optional<HeardSounds.Compared> compared = cleaning.compared(take, recipe.recipe());
        model.addAttribute("recipe", recipe);
        model.addAttribute("compared", compared.orElse(null));
        model.addAttribute("volumes", compared.map(Volumes::of).orElse(null));
        model.addAttribute("percent", cleaning.percent(take, recipe.recipe()).orElse(0));
    }

    @GetMapping("/takes/{takeId}/cleanup/before")
    ResponseEntity<Resource> before(@AuthenticationPrincipal Person viewer, @PathVariable long takeId) throws IOException {
        Take take = cleaning.take(viewer, takeId);
        return sound(() -> cleaning.before(take));
    }

    @GetMapping("/takes/{takeId}/cleanup/{recipe}/after")
    ResponseEntity<Resource> after(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @PathVariable String recipe) throws IOException {
        Take take = cleaning.take(viewer, takeId);
        return sound(() -> cleaning.after(take, named(recipe).recipe()));
    }

    @GetMapping("/takes/{takeId}/cleanup/{recipe}/removed")
    ResponseEntity<Resource> removed(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @PathVariable String recipe) throws IOException {
        Take take = cleaning.take(viewer, takeId);
        return sound(() -> cleaning.removed(take, named(recipe).recipe()));
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

    /** @param recipe none for the take as it was */
    @PostMapping("/takes/{takeId}/cleanup")
    String keep(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @RequestParam String recipe) {
        cleaning.keep(viewer, takeId, recipe.equals(NONE) ? Recipe.of() : named(recipe).recipe());
        return "redirect:/takes/" + takeId + "/cleanup" + (recipe.equals(NONE) ? "" : "?recipe=" + recipe);
    }

    private static StarterRecipe named(String slug) {
        return StarterRecipe.named(slug).orElseThrow(NotFound::new);
    }
}
