package org.mellowclass.app.cleanup;

import java.time.Clock;
import java.util.List;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.cleanup.RecipeText;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The recipes that a teacher offers to every crew of a class. */
@Service
@Transactional
class ClassRecipes {

    private static final int MOST = 30;
    private static final int LONGEST_NAME = 60;
    private static final int LONGEST_ADVICE = 200;

    private final ClassRecipeMapper recipes;
    private final Access access;
    private final Clock clock;

    ClassRecipes(ClassRecipeMapper recipes, Access access, Clock clock) {
        this.recipes = recipes;
        this.access = access;
        this.clock = clock;
    }

    /** Those of a class that somebody has been let through to. */
    @Transactional(readOnly = true)
    public List<ClassRecipe> ofClass(long classId) {
        return recipes.ofClass(classId);
    }

    /** @param advice when to use it */
    public void keep(Person teacher, long episodeId, String name, String advice, Recipe recipe) {
        long classId = access.taughtEpisode(teacher, episodeId).classId();
        String called = Fields.required(name, LONGEST_NAME, "recipe.NAME");
        String when = Fields.required(advice, LONGEST_ADVICE, "recipe.ADVICE");
        if (recipe.changesNothing()) {
            throw Refusal.unfit("recipe.EMPTY");
        }
        if (recipes.ofClass(classId).stream().filter(other -> !other.name().equals(called)).count() >= MOST) {
            throw Refusal.unfit("recipe.TOO_MANY", MOST);
        }
        recipes.put(classId, called, when, RecipeText.of(recipe), clock.instant());
    }

    /** Takes that are cleaned by it stay as they are. */
    public void takeAway(Person teacher, long recipeId) {
        ClassRecipe recipe = recipes.find(recipeId).orElseThrow(NotFound::new);
        access.taughtClass(teacher, recipe.classId());
        recipes.delete(recipeId);
    }
}
